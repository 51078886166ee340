import { useMemo } from 'react'
import { useSessionPart } from '../../model/useSession'
import type { Scales } from './chart'

/** What torque and power are shown in. */
export function useScales(): Scales | undefined {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  return useMemo(() => {
    if (!scales) return undefined
    return system === 'inch'
      ? { torque: scales.torque_inch, power: scales.power_inch }
      : { torque: scales.torque_metric, power: scales.power_metric }
  }, [scales, system])
}
