import { lazy, Suspense, useCallback, useEffect } from 'react'
import { Cylinder } from '../features/cylinder/Cylinder'
import { EventsStep } from '../features/events/EventsStep'
import { MovedLine } from '../features/events/MovedLine'
import { ClearanceStep } from '../features/clearance/ClearanceStep'
import { CompareStep } from '../features/compare/CompareStep'
import { FieldForm } from '../features/fields/FieldForm'
import { LobePicture } from '../features/lobe/LobePicture'
import { LiftBudget } from '../features/motion/LiftBudget'
import { LobeContact } from '../features/motion/LobeContact'
import { LobeTools } from '../features/motion/LobeTools'
import { MatchingMap } from '../features/motion/MatchingMap'
import { Order } from '../features/motion/Order'
import { Preload } from '../features/motion/Preload'
import { PreloadSchools } from '../features/motion/PreloadSchools'
import { PushrodFigures } from '../features/motion/PushrodFigures'
import { RunningCharts } from '../features/motion/RunningCharts'
import { RockerPicture } from '../features/motion/RockerPicture'
import { Margins } from '../features/margins/Margins'
import { MarginsDrawer } from '../features/margins/MarginsDrawer'
import { useSessionPart } from '../features/session/useSession'
import { ShelfRow } from '../features/shelf/ShelfRow'
import { TorqueStep } from '../features/torque/TorqueStep'
import { Strip } from '../features/strip/Strip'
import type { StripView } from '../features/strip/useStripView'
import { Banner } from './Banner'
import { Guard } from './Guard'
import { Rail } from './Rail'
import type { StepName } from './steps'
import { stepOf, STEPS } from './steps'
import { usePlace } from './place'
import { useNarrow } from './useNarrow'

const BuildSheet = lazy(() => import('../features/sheet/BuildSheet').then((m) => ({ default: m.BuildSheet })))

/** Steps whose drawing is the cylinder; the others need the width for their fields. */
const DRAWN: readonly StepName[] = ['events', 'lifter', 'pushrod', 'spring', 'clearance']

/** The way on the left, margins on the right, both staying; between them the strip and the step at hand, which scrolls. */
export function Workbench({ strip: view, onOpen }: { strip: StripView; onOpen: (id: number) => void }) {
  const { place, goToStep, goToField, closeSheet } = usePlace()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const goTo = useCallback((field: string) => { goToField(stepOf(field, index), field) }, [index, goToField])
  const narrow = useNarrow()
  const title = STEPS.find((s) => s.name === place.step)?.title ?? ''
  useEffect(() => { document.querySelector('main')?.scrollTo({ top: 0 }) }, [place.step])
  if (place.sheet) {
    return <div className="paper"><Suspense fallback={<p className="quiet">Laying out the sheet…</p>}><BuildSheet onClose={closeSheet} /></Suspense></div>
  }
  // Tall, the strip is the step's own picture; slim, it stands above whatever the step is about.
  const strip = <Guard what="The strip"><Strip view={view} /></Guard>
  return (
    <div className="bench">
      <Rail step={place.step} onStep={goToStep} />
      <main>
        <Banner onOpen={onOpen} />
        {view.tall ? null : strip}
        <MovedLine />
        <section className="panel step" aria-label={title}>
          <h1>{title}</h1>
          {view.tall ? strip : null}
          <div className={DRAWN.includes(place.step) ? 'at-hand drawn' : 'at-hand'}>
            <div>
              <ShelfRow step={place.step} />
              <Guard key={`drawn-${place.step}`} what={`What belongs to ${title.toLowerCase()}`}><StepContent step={place.step} /></Guard>
              {place.step === 'compare' ? null : <FieldForm key={place.step} step={place.step} focus={place.focus} />}
            </div>
            {DRAWN.includes(place.step) ? <Guard what="The cylinder"><Cylinder /></Guard> : null}
          </div>
        </section>
      </main>
      <Guard what="The list of margins">{narrow ? <MarginsDrawer step={place.step} onGoTo={goTo} /> : <Margins step={place.step} onGoTo={goTo} />}</Guard>
    </div>
  )
}

function StepContent({ step }: { step: StepName }) {
  switch (step) {
    case 'events': return <EventsStep />
    case 'lobe': return <><LobePicture /><LobeTools /><LobeContact /><Order /></>
    case 'lifter': return <><Preload /><PreloadSchools /></>
    case 'rocker': return <><LiftBudget /><RockerPicture /><RunningCharts /></>
    case 'pushrod': return <><PushrodFigures /><MatchingMap /></>
    case 'clearance': return <ClearanceStep />
    case 'torque': return <TorqueStep />
    case 'compare': return <CompareStep />
    default: return null
  }
}
