import { useMemo } from 'react'
import type { DynamicsReport, DynamicsSide } from '../../api/client'
import { speedAt } from '../control/map'
import { useControl } from '../control/useControl'
import { useSpeed } from '../torque/speed'
import { overCycle } from './overCycle'

/** Both valves as their trains in motion move them at one speed, a value for every degree. */
export interface RealMotion {
  readonly rpm: number
  readonly lift: Readonly<Record<'intake' | 'exhaust', readonly number[]>>
  readonly load: Readonly<Record<'intake' | 'exhaust', readonly number[]>>
}

/** The motion at the speed looked at, or what it waits for; nothing is asked for unless it is wanted. */
export function useRealMotion(wanted: boolean): {
  motion: RealMotion | undefined
  waiting: string
} {
  const { report, failed, doing } = useControl(undefined, wanted)
  const chosen = useSpeed()
  const motion = useMemo(
    () => (wanted && report ? motionAt(report, chosen) : undefined),
    [wanted, report, chosen],
  )
  return {
    motion,
    waiting: failed ? failed.reason : `${doing === '' ? 'turning the cam' : doing}…`,
  }
}

/** Both valves at the speed nearest to `rpm`. Pure. */
export function motionAt(report: DynamicsReport, rpm: number): RealMotion | undefined {
  const at = speedAt(report.intake, rpm)
  const speed = report.intake.speed_rpm[at]
  if (speed === undefined) return undefined
  const both = (of: (side: DynamicsSide) => readonly number[]) => ({
    intake: of(report.intake),
    exhaust: of(report.exhaust),
  })
  return {
    rpm: speed,
    lift: both((side) => overCycle(side.crank_deg, side.valve_mm[at] ?? [])),
    // Where nothing is asked of a contact there is no load.
    load: both((side) =>
      overCycle(side.crank_deg, side.contact_n[at] ?? []).map((n) => Math.max(n, 0)),
    ),
  }
}
