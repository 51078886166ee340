import { useSessionPart } from '../../model/useSession'
import { useTrain } from './useTrain'

/** What a lifter can do to the valve at most, by this preload and by each school's; and how far it bleeds down. */
export function PreloadSchools() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  const preload = train?.intake.preload
  if (!preload) return null
  return (
    <>
      <table className="figures">
        <thead>
          <tr>
            <th scope="col">At most, intake</th>
            <th scope="col">preload</th>
            <th scope="col">pumped up, held open</th>
            <th scope="col">bled down, lift lost</th>
          </tr>
        </thead>
        <tbody>
          {preload.schools.map((school) => (
            <tr key={school.name}>
              <th scope="row">{school.name}</th>
              <td>{school.preload[system]}</td>
              <td>{school.held_open[system]}</td>
              <td>{school.lost?.[system] ?? 'travel is not known'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {preload.bleeds.length > 0 ? (
        <p className="quiet">
          In one opening the plunger bleeds down{' '}
          {preload.bleeds
            .map(
              (bleed) =>
                `${bleed.plunger[system]} at ${bleed.at} (${bleed.valve[system]} at the valve)`,
            )
            .join(', ')}
          .
        </p>
      ) : null}
    </>
  )
}
