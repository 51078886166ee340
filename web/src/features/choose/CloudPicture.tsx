import { useRef } from 'react'
import { useWidth } from '../../model/useWidth'
import { useScales } from '../torque/useScales'
import { scaleOf } from './scale'
import { TicksAlong } from './Ticks'
import type { Cloud } from './useChoose'

const HEIGHT = 240
const ROOM = { left: 52, right: 12, above: 8, below: 34 }

/** Screened cams as they come: average torque over peak power. */
export function CloudPicture({ cloud }: { cloud: Cloud }) {
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder, 520, 260)
  const scales = useScales()
  if (!scales || cloud.length < 2) return <div ref={holder} />
  const power = cloud.map((cam) => (cam.peak_power_kw * 1e3) / scales.power.factor)
  const torque = cloud.map((cam) => cam.average_torque_nm / scales.torque.factor)
  const along = scaleOf(power, ROOM.left, width - ROOM.right)
  const up = scaleOf(torque, HEIGHT - ROOM.below, ROOM.above)
  return (
    <div ref={holder}>
      <svg width={width} height={HEIGHT} role="img" aria-label="Cams that were screened">
        {power.map((x, i) => (
          <circle
            key={i}
            className="cloud-cam"
            cx={along.at(x)}
            cy={up.at(torque[i] ?? 0)}
            r={3.5}
          />
        ))}
        <TicksAlong ticks={along.ticks} at={along.at} y={HEIGHT - 18} />
        {up.ticks.map((tick) => (
          <text
            key={tick}
            className="sweep-scale"
            x={ROOM.left - 6}
            y={up.at(tick) + 4}
            textAnchor="end"
          >
            {tick}
          </text>
        ))}
        <text className="sweep-scale" x={width / 2} y={HEIGHT - 3} textAnchor="middle">
          peak power, {scales.power.unit}; upwards average torque, {scales.torque.unit}
        </text>
      </svg>
    </div>
  )
}
