import type { Fault, UnitSystem } from '../../api/client'
import type { Refused } from '../../model/state'
import { useSessionPart } from '../../model/useSession'

/** The sentence a field shows for a fault, in the units on screen; a fault of another field says whose it is. Pure. */
export function faultText(fault: Fault, system: UnitSystem, field?: string): string {
  const cure = fault.cure ? `; ${fault.cure}` : ''
  const inside =
    field === undefined ||
    fault.field === field ||
    fault.field.startsWith(`${field}.`) ||
    fault.field.startsWith(`${field}[`)
  return `${inside ? '' : `${fault.label}: `}needs ${fault.shown?.[system] ?? fault.needs}${cure}`
}

/** The fault of `field` or of anything inside it. Pure. */
export function faultOf(
  faults: readonly Fault[],
  field: string,
  system: UnitSystem,
): string | undefined {
  const found = faults.find(
    (f) => f.field === field || f.field.startsWith(`${field}.`) || f.field.startsWith(`${field}[`),
  )
  return found ? faultText(found, system, field) : undefined
}

/** Why what was typed into a field was not taken; the fault of that field before those of others. */
export function useFaultText(
  refused: Refused | undefined,
  field: string | undefined,
): string | undefined {
  const system = useSessionPart((state) => state.system)
  const [first] = refused?.faults ?? []
  if (!refused) return undefined
  if (!first) return 'not taken yet: no answer came; Enter tries again'
  return (
    (field === undefined ? undefined : faultOf(refused.faults, field, system)) ??
    faultText(first, system, field)
  )
}
