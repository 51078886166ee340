import { useScrub } from '../../model/scrub'
import type { Frame } from './geometry'
import { xOf } from './geometry'

/** The line at the scrubbed crank angle. */
export function Cursor({ frame, label = true }: { frame: Frame; label?: boolean }) {
  const angle = useScrub()
  if (angle < frame.from || angle > frame.to) return null
  const x = xOf(frame, angle)
  return (
    <g className="cursor">
      <line x1={x} x2={x} y1={0} y2={frame.height - frame.bottom} />
      {label ? (
        <>
          <rect x={x - 24} y={0} width={48} height={17} rx={8} />
          <text x={x} y={12.5} textAnchor="middle">
            {angle.toFixed(1)}
          </text>
        </>
      ) : null}
    </g>
  )
}
