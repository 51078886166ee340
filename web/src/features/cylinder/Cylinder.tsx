import { memo } from 'react'
import type { DrawingReport, StripReport } from '../../api/client'
import { useScrub } from '../../model/scrub'
import { readLength } from '../../model/figures'
import { useCandidate, useLengthScale } from '../../model/useSession'
import { tightestAt } from './pose'
import { Needs } from '../fields/Needs'
import { SIDES } from '../motion/useTrain'
import { PlayButton } from './PlayButton'
import type { Trains } from './Section'
import { Section, viewOf } from './Section'
import { useCalm } from './useCalm'
import './cylinder.css'

/** Milliseconds between two pictures of the cylinder while an event is dragged. */
const FOLLOWS = 400

/** One cylinder to scale at the scrubbed angle, a section through each valve across the engine. */
export const Cylinder = memo(function Cylinder() {
  // While an event is dragged the strip leads; the cylinder follows a little later.
  const candidate = useCalm(useCandidate(), FOLLOWS)
  const drawing = candidate?.drawing
  const strip = candidate?.strip
  if (!candidate || !drawing || !strip) return null
  if (drawing.state === 'failed')
    return (
      <section className="panel cylinder">
        <Needs what="The cylinder is drawn" reason={drawing.reason} needs={drawing.needs} />
      </section>
    )
  if (drawing.state !== 'done' || strip.state !== 'done') return null
  const lobe = candidate.lobe.state === 'done' ? candidate.lobe : undefined
  const train = candidate.train.state === 'done' ? candidate.train : undefined
  const view = viewOf(drawing, train)
  return (
    <section className="panel cylinder" aria-label="One cylinder to scale">
      <Heading strip={strip} />
      <div className="sections">
        {SIDES.map((side) => (
          <Section
            key={side}
            side={side}
            drawing={drawing}
            strip={strip}
            lobe={lobe}
            train={train}
            view={view}
          />
        ))}
      </div>
      <p className="quiet caption">{scaleWords(drawing, train)}</p>
    </section>
  )
})

/** What of the drawing is to scale, and what stands in for sizes nobody gave. */
function scaleWords({ intake, exhaust }: DrawingReport, train: Trains | undefined): string {
  const sides = [intake, exhaust]
  const guessed = [
    sides.every(({ length_mm }) => typeof length_mm === 'number')
      ? undefined
      : 'the height of spring seat and stem (give the valve’s length)',
    train?.intake.rocker && train.exhaust.rocker
      ? undefined
      : 'rocker and pushrod (give the rocker’s arms)',
    'the lifter’s body',
  ].filter((part) => part !== undefined)
  return `Across the engine, to scale but for ${guessed.join(' and ')}.`
}

function Heading({ strip }: { strip: StripReport }) {
  const angle = useScrub()
  const scale = useLengthScale()
  const gap = tightestAt(strip, angle)
  return (
    <div className="cylinder-head">
      <span>
        At <b>{angle.toFixed(1)}</b>
        {gap && scale ? (
          <>
            {' '}
            tightest:{' '}
            <b className={`${gap.side}-text`}>
              {gap.side} {readLength(gap.mm, scale)}
            </b>
          </>
        ) : null}
      </span>
      <PlayButton />
    </div>
  )
}
