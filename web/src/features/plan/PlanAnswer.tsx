import { useSessionPart } from '../../model/useSession'
import { spoken } from '../fields/labels'

/** The plan in a sentence, as it stands; what is not said yet is left out. */
export function PlanAnswer() {
  const fields = useSessionPart((state) => state.answer?.fields)
  const text = (path: string) => {
    const field = fields?.find((each) => each.field === path)
    return field && field.text !== '' ? field.text : undefined
  }
  const [use, from, to, peak] = [
    'use',
    'target.band_from',
    'target.band_to',
    'target.peak_power_at',
  ].map(text)
  const [shift, over, idle, vacuum] = [
    'target.shift_at',
    'target.overspeed_by',
    'target.idle_at',
    'target.idle_vacuum',
  ].map(text)
  const parts = [
    use === undefined ? undefined : `For ${spoken(use)}`,
    from !== undefined && to !== undefined ? `torque wanted from ${from} to ${to}` : undefined,
    peak === undefined ? undefined : `power near ${peak}`,
    shift === undefined
      ? undefined
      : `shifted or governed at ${shift}${over === undefined ? '' : `, a missed shift ${over} more`}`,
    idle === undefined
      ? undefined
      : `idle at ${idle}${vacuum === undefined ? '' : ` with ${vacuum}`}`,
  ].filter((part) => part !== undefined)
  if (parts.length === 0)
    return (
      <p className="answer">Say what it is for and at which speeds: everything else follows.</p>
    )
  return <p className="answer">{parts.join(', ')}.</p>
}
