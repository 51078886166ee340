import type { ExpectedReport, SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { useExpected } from './useExpected'

interface Props {
  readonly shown: SessionReport
}

/** What was read beside what was expected, each with what it may be off by, and which field that contradicts. */
export function Figures({ shown }: Props) {
  const system = useSessionPart((state) => state.system)
  const held = useExpected(shown)
  if (shown.figures.length === 0) return null
  const doubtOf = (label: string) =>
    held?.figures.find((own) => own.label === label)?.expected_doubt[system]
  return (
    <>
      {held && held.figures.length > 0 ? <Held held={held} /> : null}
      <table className="figures">
        <caption>What was read</caption>
        <thead>
          <tr>
            <th scope="col">Reading</th>
            <th scope="col">Read</th>
            <th scope="col">Expected</th>
            <th scope="col">Off</th>
          </tr>
        </thead>
        <tbody>
          {shown.figures.map((one) => (
            <tr key={one.label}>
              <th scope="row">{one.label}</th>
              <td>
                <b>{one.read[system]}</b>
                {one.doubt ? <span className="quiet"> ± {one.doubt[system]}</span> : null}
              </td>
              <td>
                {one.expected?.[system] ?? ''}
                {doubtOf(one.label) ? <span className="quiet"> ± {doubtOf(one.label)}</span> : null}
              </td>
              <td>
                {one.off?.[system] ?? ''}
                {one.stands_out ? <span className="word tight"> stands out</span> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

/** Whether readings and document agree, and the fields that would bring them together. */
function Held({ held }: { readonly held: ExpectedReport }) {
  const system = useSessionPart((state) => state.system)
  const { goToField } = usePlace()
  return (
    <section aria-label="Against the document">
      <p>{held.says}</p>
      {held.suspects.length > 0 ? (
        <table className="figures">
          <caption>What would explain it, each by itself</caption>
          <tbody>
            {held.suspects.map((own) => (
              <tr key={own.field}>
                <th scope="row">
                  <button type="button" className="link" onClick={() => goToField(own.field)}>
                    {own.label}
                  </button>
                </th>
                <td>
                  {own.from[system]} → <b>{own.to[system]}</b>
                </td>
                <td>{own.times_its_doubt.toFixed(1)} times what it may be off by</td>
                <td>{(100 * own.explains).toFixed(0)} % of what is off</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </section>
  )
}
