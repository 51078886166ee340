import { useCallback, useState } from 'react'
import { EventsStep } from '../features/events/EventsStep'
import { MovedLine } from '../features/events/MovedLine'
import { FieldForm } from '../features/fields/FieldForm'
import { LobePicture } from '../features/lobe/LobePicture'
import { Margins } from '../features/margins/Margins'
import { useSessionPart } from '../features/session/useSession'
import { Strip } from '../features/strip/Strip'
import { Banner } from './Banner'
import { Rail } from './Rail'
import type { StepName } from './steps'
import { prefixesOf, stepOf, STEPS } from './steps'

/** Strip on top, the step at hand below it, the way on the left, margins on the right. */
export function Workbench() {
  const [place, setPlace] = useState<{ step: StepName; focus: string | undefined }>({ step: 'events', focus: undefined })
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const goTo = useCallback((field: string) => { setPlace({ step: stepOf(field, index), focus: field }) }, [index])
  const title = STEPS.find((s) => s.name === place.step)?.title ?? ''
  return (
    <div className="bench">
      <Rail step={place.step} onStep={(step) => { setPlace({ step, focus: undefined }) }} />
      <main>
        <Banner />
        <Strip />
        <MovedLine />
        <section className="panel step" aria-label={title}>
          {place.step === 'events' ? <EventsStep /> : (
            <>
              {place.step === 'lobe' ? <LobePicture /> : null}
              <FieldForm key={place.step} prefixes={prefixesOf(place.step, index)} focus={place.focus} />
            </>
          )}
        </section>
      </main>
      <Margins onGoTo={goTo} />
    </div>
  )
}
