import type { StripReport } from '../../api/client'

export type TraceName = 'gap' | 'velocity'

interface Trace {
  readonly name: TraceName
  readonly label: string
  /** Intake and exhaust curve, and the largest value shown; `undefined` lets the curve decide. */
  readonly curves: (report: StripReport) => readonly [readonly number[] | null | undefined, readonly number[] | null | undefined]
  readonly most: number | undefined
}

/** The traces that can share the strip's axis. */
export const TRACES: readonly Trace[] = [
  {
    name: 'gap',
    label: 'gap to the piston',
    curves: (report) => [report.intake_clearance_mm, report.exhaust_clearance_mm],
    // Far from the piston the gap is of no interest.
    most: 20,
  },
  {
    name: 'velocity',
    label: 'valve velocity',
    curves: (report) => [report.intake_velocity_mm_per_deg, report.exhaust_velocity_mm_per_deg],
    most: undefined,
  },
]

export function traceOf(name: TraceName): Trace {
  return TRACES.find((trace) => trace.name === name) ?? (TRACES[0] as Trace)
}

/** Least and largest value to show: zero is always in sight. Pure. */
export function rangeOf(curves: readonly (readonly number[] | null | undefined)[], most: number | undefined): { least: number; most: number } {
  let [low, high] = [0, 1e-9]
  for (const curve of curves) {
    for (const value of curve ?? []) {
      if (value < low) low = value
      if (value > high) high = value
    }
  }
  return { least: low, most: most ?? Math.max(high, -low) }
}
