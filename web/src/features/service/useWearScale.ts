import { useSessionPart } from '../../model/useSession'

/** How a reading in newtons or millimetres is shown. */
export function useWearScale(
  unit: string,
): { readonly unit: string; readonly factor: number } | undefined {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  if (!scales) return undefined
  if (unit === 'N') return system === 'inch' ? scales.force_inch : scales.force_metric
  const own = system === 'inch' ? scales.length_inch : scales.length_metric
  // The report has millimetres, scales are of metres.
  return { unit: own.unit, factor: own.factor * 1e3 }
}
