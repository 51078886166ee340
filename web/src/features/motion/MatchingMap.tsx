import { Button } from 'antd'
import type { TrainReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { printOnly } from '../sheet/printOnly'
import { boxesOf } from './boxes'
import { useTrain } from './useTrain'

type Pair = TrainReport['matching'][number]

/** Which pushrod goes where, to lie beside the engine: a box for each cylinder, or for each place. */
export function MatchingMap() {
  const { train } = useTrain()
  const name = useSessionPart((state) => state.answer?.name) ?? ''
  const matching = train?.intake.matching ?? []
  if (matching.length === 0) return null
  return (
    <section className="matching-map" aria-label="Which pushrod goes where">
      <div className="lobe-row">
        <h2>Pushrods to their places, {name}</h2>
        <Button size="small" className="no-print" onClick={() => printOnly('matching-map')}>
          Print this map
        </Button>
      </div>
      <ol className="boxes">
        {boxesOf(matching).map((box) => (
          <li key={box.title} className="box">
            <b>{box.title}</b>
            {box.pairs.map((pair) => (
              <Place key={pair.place} pair={pair} />
            ))}
          </li>
        ))}
      </ol>
      <p className="quiet">
        Large figures are pushrods as they lie on the bench, first to last. Check preload again when
        all are in.
      </p>
    </section>
  )
}

function Place({ pair }: { pair: Pair }) {
  const system = useSessionPart((state) => state.system)
  return (
    <span className={`place ${pair.side ?? ''}`}>
      <span className="quiet">{pair.side ?? 'pushrod'}</span>
      <span className="rod">{pair.pushrod}</span>
      <span className="quiet">
        {pair.preload[system]}
        {pair.shims > 0 ? `, ${pair.shims} ${pair.shims === 1 ? 'shim' : 'shims'}` : ''}
      </span>
    </span>
  )
}
