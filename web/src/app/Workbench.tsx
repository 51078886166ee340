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
import { useSessionPart } from '../features/session/useSession'
import { ShelfRow } from '../features/shelf/ShelfRow'
import { TorqueStep } from '../features/torque/TorqueStep'
import { Strip } from '../features/strip/Strip'
import { Banner } from './Banner'
import { Guard } from './Guard'
import { Rail } from './Rail'
import type { StepName } from './steps'
import { stepOf, STEPS } from './steps'
import { usePlace } from './place'

const BuildSheet = lazy(() => import('../features/sheet/BuildSheet').then((m) => ({ default: m.BuildSheet })))

/** Steps whose drawing is the cylinder; the others need the width for their fields. */
const DRAWN: readonly StepName[] = ['events', 'lifter', 'pushrod', 'spring', 'clearance']

/** Strip on top, the step at hand below it beside the drawing, the way on the left, margins on the right. */
export function Workbench({ onOpen }: { onOpen: (id: number) => void }) {
  const { place, goToStep, goToField, closeSheet } = usePlace()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const goTo = useCallback((field: string) => { goToField(stepOf(field, index), field) }, [index, goToField])
  const title = STEPS.find((s) => s.name === place.step)?.title ?? ''
  useEffect(() => { document.querySelector('.step')?.scrollTo({ top: 0 }) }, [place.step])
  if (place.sheet) {
    return <Suspense fallback={<p className="quiet">Laying out the sheet…</p>}><BuildSheet onClose={closeSheet} /></Suspense>
  }
  return (
    <div className="bench">
      <Rail step={place.step} onStep={goToStep} />
      <main>
        <Banner onOpen={onOpen} />
        <Guard what="The strip"><Strip /></Guard>
        <MovedLine />
        <div className={DRAWN.includes(place.step) ? 'at-hand drawn' : 'at-hand'}>
          <section className="panel step" aria-label={title}>
            <h1>{title}</h1>
            <ShelfRow step={place.step} />
            <Guard key={`drawn-${place.step}`} what={`What belongs to ${title.toLowerCase()}`}><StepContent step={place.step} /></Guard>
            {place.step === 'compare' ? null : <FieldForm key={place.step} step={place.step} focus={place.focus} />}
          </section>
          {DRAWN.includes(place.step) ? <Guard what="The cylinder"><Cylinder /></Guard> : null}
        </div>
      </main>
      <Guard what="The list of margins"><Margins onGoTo={goTo} /></Guard>
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
