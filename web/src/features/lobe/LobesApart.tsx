import type { Beside } from '../../api/client'
import type { SideName } from '../motion/useTrain'

/** What tells the lobes in view from those of the candidate beside, in words. */
export function LobesApart({
  name,
  apart,
  sides,
}: {
  name: string
  apart: NonNullable<Beside['lobes_apart']>
  sides: readonly SideName[]
}) {
  return (
    <dl className="facts lobes-apart">
      {sides.map((side) => {
        const { one_card: oneCard, words } = apart[side]
        return (
          <div key={side}>
            <dt>
              {side === 'intake' ? 'Intake' : 'Exhaust'} lobe against {name}
              {oneCard ? ': one lift and .050 duration' : ''}
            </dt>
            <dd>
              {words.length === 0 ? 'no difference worth a word' : words.slice(0, 5).join(', ')}
            </dd>
          </div>
        )
      })}
    </dl>
  )
}
