import type { SideWord } from '../../api/client'
import { plain, readLength } from '../../model/figures'
import { usePlace } from '../../model/place'
import { useCandidate, useLengthScale } from '../../model/useSession'
import { fallOf } from '../clearance/atSpeed'

/** What a running engine takes of the gap that is measured at rest, term by term, at the highest speed it is judged at. */
export function Budget({ side }: { readonly side: SideWord }) {
  const report = useCandidate()?.at_speed
  const scale = useLengthScale()
  const { goToField, goToStep } = usePlace()
  if (report?.state !== 'done' || !scale) return null
  const place = report.speed_rpm.length - 1
  const own = report[side]
  const falls = fallOf(own, place)
  const left = falls.at(-1)?.to
  if (left === undefined) return null
  const read = (mm: number) => readLength(mm, scale)
  return (
    <table className="figures" aria-label="Growth budget">
      <caption>
        From the nearest at rest to what is left at {plain(report.speed_rpm[place] ?? 0)} rpm, by
        the document; a drop that is taken over counts from there
      </caption>
      <tbody>
        <tr>
          <th scope="row">Nearest at rest</th>
          <td>{read(own.at_rest_mm)}</td>
        </tr>
        {falls.map(({ term, from, to }) => (
          <tr key={term.id} className={term.is_assumed ? 'quiet' : ''}>
            <th scope="row">
              {term.field ? (
                <button type="button" className="link" onClick={() => goToField(term.field ?? '')}>
                  {term.name}
                </button>
              ) : (
                term.name
              )}
            </th>
            <td>{read(to - from)}</td>
          </tr>
        ))}
        <tr>
          <th scope="row">
            <button type="button" className="link" onClick={() => goToStep('clearance')}>
              Left at speed
            </button>
          </th>
          <td>
            <b>{read(left)}</b>
          </td>
        </tr>
      </tbody>
    </table>
  )
}
