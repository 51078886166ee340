import { lazy, Suspense, useEffect } from 'react'
import { Cylinder } from '../features/cylinder/Cylinder'
import { MovedLine } from '../features/events/MovedLine'
import { FieldForm } from '../features/fields/FieldForm'
import { Margins } from '../features/margins/Margins'
import { MarginsDrawer } from '../features/margins/MarginsDrawer'
import { ShelfRow } from '../features/shelf/ShelfRow'
import { Strip } from '../features/strip/Strip'
import type { StripView } from '../features/strip/useStripView'
import type { Paper } from '../model/place'
import { usePlace } from '../model/place'
import { useNarrow } from '../model/useNarrow'
import { stepNamed, STEPS } from '../steps/registry'
import { Banner } from './Banner'
import { FirstVisit } from './FirstVisit'
import { Guard } from './Guard'
import { Rail } from './Rail'

const BuildSheet = lazy(() =>
  import('../features/sheet/BuildSheet').then((m) => ({ default: m.BuildSheet })),
)

const AtEngine = lazy(() =>
  import('../features/bench/AtEngine').then((m) => ({ default: m.AtEngine })),
)
const SessionPaper = lazy(() =>
  import('../features/bench/SessionPaper').then((m) => ({ default: m.SessionPaper })),
)

/** The way on the left, margins on the right, both staying; between them the strip and the step at hand, which scrolls. */
export function Workbench({
  strip: view,
  onOpen,
  onBegin,
}: {
  strip: StripView
  onOpen: (id: number) => void
  onBegin: () => void
}) {
  const { place, goToStep, goToField, openBench } = usePlace()
  const narrow = useNarrow()
  const step = stepNamed(place.step)
  const { title, Answer } = step
  useEffect(() => {
    document.querySelector('main')?.scrollTo({ top: 0 })
  }, [place.step])
  if (place.paper) return <OnPaper paper={place.paper} onClose={openBench} />
  // Tall, the strip is the step's own picture; slim, it stands above whatever the step is about.
  const strip = (
    <Guard what="The strip">
      <Strip view={view} />
    </Guard>
  )
  return (
    <div className="bench">
      <Rail step={place.step} onStep={goToStep} />
      <main>
        <FirstVisit onBegin={onBegin} />
        <Banner onOpen={onOpen} />
        {view.tall ? null : strip}
        <MovedLine />
        <section className="panel step" aria-label={title}>
          <h1>{title}</h1>
          {view.tall ? strip : null}
          <div className={step.drawn ? 'at-hand drawn' : 'at-hand'}>
            <div>
              <Guard key={`drawn-${step.name}`} what={`What belongs to ${title.toLowerCase()}`}>
                <Suspense fallback={<p className="quiet">Laying out…</p>}>
                  {Answer ? <Answer /> : null}
                </Suspense>
              </Guard>
              <ShelfRow kinds={step.shelf} />
              {step.form ? (
                <Guard key={`fields-${step.name}`} what="The fields">
                  <FieldForm groups={step.groups} focus={place.focus} />
                </Guard>
              ) : null}
            </div>
            {step.drawn ? (
              <Guard what="The cylinder">
                <Cylinder />
              </Guard>
            ) : null}
          </div>
        </section>
      </main>
      <Guard what="The list of margins">
        {narrow ? (
          <MarginsDrawer step={place.step} onGoTo={goToField} />
        ) : (
          <Margins step={place.step} onGoTo={goToField} />
        )}
      </Guard>
    </div>
  )
}

/** What stands in place of the bench, to be read, printed, or worked at beside the engine. */
function OnPaper({ paper, onClose }: { paper: Paper; onClose: () => void }) {
  return (
    <div className="paper">
      <Guard what="The sheet">
        <Suspense fallback={<p className="quiet">Laying out the sheet…</p>}>
          {paper === 'sheet' ? <BuildSheet steps={STEPS} onClose={onClose} /> : null}
          {paper === 'session-sheet' ? <SessionPaper onClose={onClose} /> : null}
          {paper === 'at-engine' ? <AtEngine onClose={onClose} /> : null}
        </Suspense>
      </Guard>
    </div>
  )
}
