import type { Scale } from '../api/client'

/** Figures as people read them: the one place that rounds. Pure. */

/** Without a zero that nobody speaks before the point, and without a minus before nothing. */
function spoken(text: string, unit: string): string {
  const short = unit === 'in' ? text.replace(/^(-?)0\./, '$1.') : text
  return short.replace(/^-(0?\.?0*)$/, '$1')
}

/** An SI value by the scale the server sent, without its unit. */
export function numberIn(si: number, scale: Scale): string {
  return spoken(((si - scale.offset) / scale.factor).toFixed(scale.decimals), scale.unit)
}

/** The same with its unit. */
export function readIn(si: number, scale: Scale): string {
  return `${numberIn(si, scale)} ${scale.unit}`
}

/** A length in millimetres as the report has it, read in the scale on screen. */
export function readLength(mm: number, scale: Scale): string {
  return readIn(mm * 1e-3, scale)
}

/** An angle to a tenth, without its unit. */
export function tenths(deg: number): string {
  // Halves of a tenth that are not quite one in binary are rounded as they are typed.
  return spoken((Math.round(deg * 100) / 100).toFixed(1), 'deg')
}

/** An angle to a tenth. */
export function readAngle(deg: number): string {
  return `${tenths(deg)} deg`
}

/** A share in per cent. */
export function percent(share: number, decimals = 1): string {
  return `${(100 * share).toFixed(decimals)} %`
}

/** A change of a share in per cent, with its sign. */
export function signedPercent(share: number, decimals = 1): string {
  return `${share < 0 ? '−' : '+'}${percent(Math.abs(share), decimals)}`
}

/** A plain number to so many digits behind the point. */
export function plain(value: number, decimals = 0): string {
  return spoken(value.toFixed(decimals), '')
}
