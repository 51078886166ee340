import type { DynamicsReport } from '../../api/client'
import { percent } from '../../model/figures'

type Share = DynamicsReport['shares'][number]

/** What gives and what moves in the train that loses control first: why a habit of the trade may do little. */
export function TrainShares({ shares, name }: { shares: readonly Share[]; name: string }) {
  if (shares.length === 0) return null
  return (
    <figure className="train-shares" aria-label={`What gives and what moves on the ${name}`}>
      <Bar title="Gives under load" shares={shares} of={(share) => share.gives} />
      <Bar title="Moves with the valve" shares={shares} of={(share) => share.moves} />
      <figcaption className="quiet">
        The {name} train as it counts at the valve: stiffness pays where it gives, lightness where
        it moves. A lifter’s mass is divided by the ratio squared.
      </figcaption>
    </figure>
  )
}

interface BarProps {
  readonly title: string
  readonly shares: readonly Share[]
  readonly of: (share: Share) => number
}

function Bar({ title, shares, of }: BarProps) {
  const shown = shares.filter((share) => of(share) > 0.005)
  return (
    <div className="share-row">
      <span>{title}</span>
      <ol className="share-bar">
        {shown.map((share) => (
          <li
            key={share.part}
            style={{ flexGrow: of(share) }}
            title={`${share.part} ${percent(of(share), 0)}`}
          >
            <span>
              {share.part} {percent(of(share), 0)}
            </span>
          </li>
        ))}
      </ol>
    </div>
  )
}
