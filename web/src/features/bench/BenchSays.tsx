import { Button } from 'antd'
import type { BenchFinding, Edit } from '../../api/client'
import { usePlace } from '../../model/place'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import './bench.css'
import { takenFrom } from './taken'

const WORDS: Record<BenchFinding['verdict'], string> = {
  new: 'not measured yet',
  agrees: 'agrees',
  differs: 'differs',
  unclear: '',
}

/** What readings of the bench say of the fields they stand for, and the way to take them over; nothing while none was entered. */
export function BenchSays() {
  const session = useSession()
  const found = useCandidate()?.bench ?? []
  const system = useSessionPart((state) => state.system)
  if (found.length === 0) return null
  const all = takenFrom(found, system)
  const take = (edits: Edit[]) => session.edits(edits)
  return (
    <section className="bench-says" aria-label="What the bench reads">
      <table className="figures">
        <caption>
          What the bench reads
          {all.length > 2 ? (
            <Button size="small" onClick={() => take(all)}>
              Take them all
            </Button>
          ) : null}
        </caption>
        <thead>
          <tr>
            <th scope="col">Field</th>
            <th scope="col">By the reading</th>
            <th scope="col">Here</th>
            <th scope="col" />
          </tr>
        </thead>
        <tbody>
          {found.map((one) => (
            <Row key={`${one.field} ${one.from}`} one={one} onTake={take} />
          ))}
        </tbody>
      </table>
      <p className="quiet">
        Doubt after ± is what dial, wheel, gauge, clay, burette, deck and gasket leave together.
        Taken over, a value is marked measured.
      </p>
    </section>
  )
}

function Row({ one, onTake }: { one: BenchFinding; onTake: (edits: Edit[]) => void }) {
  const system = useSessionPart((state) => state.system)
  const { goToField } = usePlace()
  const edits = takenFrom([one], system)
  return (
    <tr>
      <th scope="row">
        <button type="button" className="link" onClick={() => goToField(one.field)}>
          {one.label}
        </button>
      </th>
      <td>
        {one.says ? (
          <>
            <b>{one.says[system]}</b> ± {one.doubt?.[system]}
          </>
        ) : (
          'not known'
        )}
        <span className="quiet">
          , {one.from}: {one.how[system]}
          {one.needs.map(({ field, label }) => (
            <button key={field} type="button" className="link" onClick={() => goToField(field)}>
              {label}
            </button>
          ))}
        </span>
      </td>
      <td>
        {one.now?.[system] ?? 'none'}{' '}
        <span className={one.verdict === 'differs' ? 'word tight' : 'quiet'}>
          {WORDS[one.verdict]}
        </span>
      </td>
      <td>
        {edits.length > 0 ? (
          <Button size="small" onClick={() => onTake(edits)} aria-label={`Take ${one.label}`}>
            Take
          </Button>
        ) : null}
      </td>
    </tr>
  )
}
