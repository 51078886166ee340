import { plain, readIn } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { SIDES, useTrain } from './useTrain'

/** The pushrod as a column, what each part of the train gives, and what the next size up would bring. */
export function PushrodFigures() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  if (!train || !scales) return null
  const inch = system === 'inch'
  const force = inch ? scales.force_inch : scales.force_metric
  // Whole pounds to the inch, or kilonewtons to the millimetre.
  const stiff = (nPerMm: number) =>
    inch
      ? `${plain((nPerMm * 1e3 * scales.length_inch.factor) / force.factor / 1e3)} klbf/in`
      : `${plain(nPerMm * 1e-3, 1)} kN/mm`
  const parts = train.intake.shares.map((share) => share.part)
  const pushrods = SIDES.map((side) => train[side].pushrod)
  return (
    <>
      {pushrods.some((pushrod) => pushrod) ? (
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">Pushrod</th>
              {SIDES.map((side) => (
                <th key={side} scope="col">
                  {side}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Stiffness</th>
              {pushrods.map((rod, i) => (
                <td key={SIDES[i]}>{rod ? stiff(rod.stiffness_n_per_mm) : ''}</td>
              ))}
            </tr>
            <tr>
              <th scope="row">Bends out at</th>
              {pushrods.map((rod, i) => (
                <td key={SIDES[i]}>{rod ? readIn(rod.buckling_load_n, force) : ''}</td>
              ))}
            </tr>
            <tr>
              <th scope="row">Mass of the tube</th>
              {pushrods.map((rod, i) => (
                <td key={SIDES[i]}>{rod ? `${plain(rod.mass_g)} g` : ''}</td>
              ))}
            </tr>
            {pushrods.some((rod) => rod?.wanted) ? (
              <tr>
                <th scope="row">Length wanted</th>
                {pushrods.map((rod, i) => (
                  <td key={SIDES[i]}>{rod?.wanted?.[system] ?? ''}</td>
                ))}
              </tr>
            ) : null}
            {pushrods.some((rod) => rod?.gives) ? (
              <tr>
                <th scope="row">This one gives, beyond no play</th>
                {pushrods.map((rod, i) => (
                  <td key={SIDES[i]}>{rod?.gives?.[system] ?? ''}</td>
                ))}
              </tr>
            ) : null}
            {pushrods.some((rod) => rod?.for_geometry) ? (
              <tr>
                <th scope="row">Square as its school asks, longer by</th>
                {pushrods.map((rod, i) => (
                  <td key={SIDES[i]}>{rod?.for_geometry?.[system] ?? ''}</td>
                ))}
              </tr>
            ) : null}
            <tr>
              <th scope="row">Next size up</th>
              {pushrods.map((rod, i) => (
                <td key={SIDES[i]}>
                  {rod
                    ? `${rod.next}: ${rod.next_gain[system]} more lift, ${plain(rod.next_mass_g)} g`
                    : ''}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      ) : null}
      {parts.length > 0 ? (
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">What gives at full lift</th>
              {SIDES.map((side) => (
                <th key={side} scope="col">
                  {side}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map((part, place) => (
              <tr key={part}>
                <th scope="row">{part}</th>
                {SIDES.map((side) => (
                  <td key={side}>{train[side].shares[place]?.shown[system] ?? ''}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {parts.length > 0 ? (
        <p className="quiet">
          The split is a prediction: readings of lift tell the sum of it, not the parts.
        </p>
      ) : null}
    </>
  )
}
