import { useSessionPart } from '../session/useSession'
import { useTrain } from './useTrain'

/** Which pushrod goes where, for the bench; printed with the page. */
export function MatchingMap() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  const matching = train?.intake.matching ?? []
  if (matching.length === 0) return null
  const shimmed = matching.some((pair) => pair.shims > 0)
  return (
    <table className="figures matching">
      <thead><tr><th scope="col">Place</th><th scope="col">Pushrod on the bench</th>{shimmed ? <th scope="col">Shims under the stand</th> : null}<th scope="col">Preload then</th></tr></thead>
      <tbody>
        {matching.map((pair) => <tr key={pair.place}><th scope="row">{pair.place}</th><td>{pair.pushrod}</td>{shimmed ? <td>{pair.shims === 0 ? '' : pair.shims}</td> : null}<td>{pair.preload[system]}</td></tr>)}
      </tbody>
    </table>
  )
}
