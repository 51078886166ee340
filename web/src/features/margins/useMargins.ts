import { useMemo } from 'react'
import { useCandidate } from '../session/useSession'
import { useComputedLimits } from '../torque/useCurve'
import type { Margin } from './order'
import { withComputed } from './order'

/** The limits of the candidate in view; what the gas was computed to do stands above its estimate. */
export function useMargins(): readonly Margin[] {
  const limits = useCandidate()?.limits
  const computed = useComputedLimits()
  return useMemo(() => withComputed(limits ?? [], computed), [limits, computed])
}
