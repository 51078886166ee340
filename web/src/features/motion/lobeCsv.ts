import type { LobeReport } from '../../api/client'

/** A lobe as a file: cam degrees from full lift and lift in millimetres, every `step` degrees of the half-degree report. Pure. */
export function lobeCsv(lobe: Pick<LobeReport, 'cam_deg' | 'lift_mm'>, step: number): string {
  const rows = lobe.cam_deg.flatMap((deg, i) =>
    Number.isInteger(deg / step) ? [`${String(deg)},${(lobe.lift_mm[i] ?? 0).toFixed(5)}`] : [],
  )
  return `${['cam deg,lift (mm)', ...rows].join('\n')}\n`
}
