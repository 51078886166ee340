import type { StripReport, TraceReport } from '../../api/client'
import { overCycle } from './overCycle'
import type { RealMotion } from './useRealMotion'

export type TraceName = 'gap' | 'velocity' | 'pressure' | 'flow' | 'load'

interface Trace {
  readonly name: TraceName
  readonly label: string
  /** Intake and exhaust curve, and the largest value shown; `undefined` lets the curve decide. */
  readonly curves: (
    report: StripReport,
    gas: TraceReport | undefined,
    motion: RealMotion | undefined,
  ) => readonly [readonly number[] | null | undefined, readonly number[] | null | undefined]
  /** Of what takes a moment: the gas, or the trains in motion. */
  readonly of?: 'gas' | 'motion'
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
  {
    name: 'pressure',
    label: 'pressure at the valves',
    curves: (_, gas) => [
      degrees(gas?.crank_deg, gas?.intake_kpa),
      degrees(gas?.crank_deg, gas?.exhaust_kpa),
    ],
    most: undefined,
    of: 'gas',
  },
  {
    name: 'flow',
    label: 'flow through the valves',
    curves: (_, gas) => [
      degrees(gas?.crank_deg, gas?.intake_g_s),
      degrees(gas?.crank_deg, gas?.exhaust_g_s),
    ],
    most: undefined,
    of: 'gas',
  },
  {
    name: 'load',
    label: 'load on the lobes',
    curves: (_, __, motion) => [motion?.load.intake, motion?.load.exhaust],
    most: undefined,
    of: 'motion',
  },
]

/** A curve with evenly spaced angles as one with a value for every degree. Pure. */
export function degrees(
  crank: readonly number[] | undefined,
  values: readonly number[] | undefined,
): number[] | undefined {
  return crank && values && values.length > 1 ? overCycle(crank, values) : undefined
}

export function traceOf(name: TraceName): Trace {
  return TRACES.find((trace) => trace.name === name) ?? (TRACES[0] as Trace)
}

/** Least and largest value to show: zero is always in sight. Pure. */
export function rangeOf(
  curves: readonly (readonly number[] | null | undefined)[],
  most: number | undefined,
): { least: number; most: number } {
  let [low, high] = [0, 1e-9]
  for (const curve of curves) {
    for (const value of curve ?? []) {
      if (value < low) low = value
      if (value > high) high = value
    }
  }
  return { least: low, most: most ?? Math.max(high, -low) }
}
