import type { Fault } from '../../api/client'

/** The sentence a field shows for its fault. */
export function faultText(fault: Fault): string {
  const cure = fault.cure ? `; ${fault.cure}` : ''
  return `needs ${fault.needs}${cure}`
}

/** The fault of `field` or of anything inside it. */
export function faultOf(faults: readonly Fault[], field: string): string | undefined {
  const found = faults.find((f) => f.field === field || f.field.startsWith(`${field}.`) || f.field.startsWith(`${field}[`))
  return found ? faultText(found) : undefined
}
