import { Button, Segmented, Select } from 'antd'
import { memo } from 'react'
import type { Zoom } from './geometry'
import { OVERLAP, WHOLE, zoomed } from './geometry'
import type { TraceName } from './traces'
import { TRACES } from './traces'

type SetZoom = (change: (now: Zoom) => Zoom) => void

const PARTS = [
  { label: 'whole cycle', value: 'whole' },
  { label: 'overlap', value: 'overlap' },
]

function middle(zoom: Zoom): number {
  return (zoom.from + zoom.to) / 2
}

/** Zoom of the strip by buttons; wheel and keys do the same. */
export const StripTools = memo(function StripTools({
  zoom,
  onZoom,
}: {
  zoom: Zoom
  onZoom: SetZoom
}) {
  return (
    <>
      <Segmented
        size="small"
        aria-label="Part of the cycle"
        options={PARTS}
        value={zoom.to - zoom.from >= 720 ? 'whole' : 'overlap'}
        onChange={(value) => onZoom(() => (value === 'whole' ? WHOLE : OVERLAP))}
      />
      <Button
        size="small"
        aria-label="Zoom in"
        onClick={() => onZoom((now) => zoomed(now, middle(now), 0.6))}
      >
        +
      </Button>
      <Button
        size="small"
        aria-label="Zoom out"
        onClick={() => onZoom((now) => zoomed(now, middle(now), 1.6))}
      >
        −
      </Button>
    </>
  )
})

const CHOICES = TRACES.map((trace) => ({ value: trace.name, label: trace.label }))

/** Which trace shares the strip's axis. */
export const TraceChoice = memo(function TraceChoice({
  trace,
  onTrace,
}: {
  trace: TraceName
  onTrace: (trace: TraceName) => void
}) {
  return (
    <Select
      size="small"
      variant="borderless"
      aria-label="Trace below the strip"
      value={trace}
      onChange={onTrace}
      options={CHOICES}
    />
  )
})
