import { Button } from 'antd'
import type { RefObject } from 'react'
import { memo } from 'react'
import { useSession } from '../../model/useSession'
import { csvOfColumns, download } from '../pictures/export'

/** The strip taken along: every curve as CSV, what is on screen as a picture. */
export const StripExport = memo(function StripExport({
  name,
  holder,
}: {
  name: string
  holder: RefObject<HTMLDivElement | null>
}) {
  const session = useSession()
  const file = name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()
  const csv = () => {
    // Read when it is asked for: curves change with every step of a drag, these buttons do not.
    const report = session.read().answer?.analysis.candidates[0]?.strip
    if (report?.state !== 'done') return
    download(
      `${file}-strip.csv`,
      csvOfColumns([
        { name: 'crank (deg)', values: report.crank_deg },
        { name: 'piston (mm)', values: report.piston_mm },
        { name: 'intake lift (mm)', values: report.intake_lift_mm },
        { name: 'exhaust lift (mm)', values: report.exhaust_lift_mm },
        { name: 'intake running lift (mm)', values: report.intake_running_mm },
        { name: 'exhaust running lift (mm)', values: report.exhaust_running_mm },
        { name: 'intake gap (mm)', values: report.intake_clearance_mm },
        { name: 'exhaust gap (mm)', values: report.exhaust_clearance_mm },
        { name: 'intake velocity (mm/deg)', values: report.intake_velocity_mm_per_deg },
        { name: 'exhaust velocity (mm/deg)', values: report.exhaust_velocity_mm_per_deg },
      ]),
      'text/csv',
    )
  }
  const picture = () => {
    const layers = [...(holder.current?.querySelectorAll('.strip-plot canvas') ?? [])]
    flattened(layers as HTMLCanvasElement[])?.toBlob((blob) => {
      if (blob) download(`${file}-strip.png`, blob, 'image/png')
    })
  }
  return (
    <>
      <Button size="small" type="text" aria-label="Strip curves as CSV" onClick={csv}>
        CSV
      </Button>
      <Button size="small" type="text" aria-label="Strip as a picture" onClick={picture}>
        PNG
      </Button>
    </>
  )
})

/** Layers of one picture, the lowest first, as one; a canvas that a worker draws cannot be saved by itself. */
function flattened(layers: readonly HTMLCanvasElement[]): HTMLCanvasElement | undefined {
  const [lowest] = layers
  if (!lowest) return undefined
  const whole = document.createElement('canvas')
  whole.width = lowest.width
  whole.height = lowest.height
  const pen = whole.getContext('2d')
  for (const layer of layers) pen?.drawImage(layer, 0, 0)
  return whole
}
