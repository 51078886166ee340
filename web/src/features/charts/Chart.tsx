import { lazy, Suspense } from 'react'
import type { ChartProps } from './Plot'

const Plot = lazy(() => import('./Plot').then((module) => ({ default: module.Plot })))

/** A plain x-y chart: read by hover and keys, zoomed, taken along. Its machinery is fetched with the first one. */
export function Chart(props: ChartProps) {
  return (
    <Suspense fallback={<div className="chart-waiting" style={{ height: props.height ?? 190 }} />}>
      <Plot {...props} />
    </Suspense>
  )
}
