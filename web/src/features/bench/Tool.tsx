import type { ReactNode } from 'react'
import type { Gauge } from '../../api/client'
import { Dial, Lobe, Train, Wheel } from './toolParts'

/** Where the tool sits, in one drawing: the engine in grey, the tool in ink. */
export function Tool({ gauge }: { readonly gauge: Gauge }) {
  return (
    <svg className="tool" viewBox="0 0 260 190" role="img" aria-label="Where the tool sits">
      {DRAWN[gauge]}
    </svg>
  )
}

/** Over a caliper's two jaws, from left to right. */
function Caliper({ x, y, width }: { x: number; y: number; width: number }) {
  return (
    <g className="tool-part">
      <path d={`M${x},${y} v46 M${x},${y} h${width + 40} M${x + width},${y} v46`} />
      <rect x={x + width - 6} y={y - 9} width={44} height={16} rx={3} />
    </g>
  )
}

/** A dial on the retainer, along the stem. */
function OnRetainer() {
  return <Dial x={214} y={26} along="M200,36 L184,52" />
}

const DRAWN: Record<Gauge, ReactNode> = {
  wheel_and_lifter: (
    <>
      <Train />
      <Wheel x={64} y={132} />
      <Dial x={30} y={48} along="M30,66 L52,98" />
    </>
  ),
  wheel_and_valve: (
    <>
      <Train />
      <Wheel x={64} y={132} />
      <OnRetainer />
    </>
  ),
  caliper_on_lobe: (
    <>
      <Lobe x={130} y={112} size={1.7} />
      <Caliper x={84} y={34} width={92} />
    </>
  ),
  dial_on_lobe: (
    <>
      <Lobe x={110} y={126} size={1.4} />
      <Wheel x={110} y={126} />
      <Dial x={110} y={26} along="M110,44 V74" />
    </>
  ),
  height_micrometer: (
    <>
      <Train bare />
      <path className="tool-part" d="M176,58 v44 M192,58 v44 M170,80 h28 M170,72 h28" />
    </>
  ),
  spring_tester: (
    <>
      <path className="metal-line" d="M70,170 h120 M84,170 V24 M176,170 V24 M70,24 h120" />
      <path
        className="metal-line"
        d="M112,148 l36,-10 l-36,-10 l36,-10 l-36,-10 l36,-10 l-36,-10 l36,-10"
      />
      <path className="tool-part" d="M104,68 h52 M130,68 V30 M108,150 h44" />
      <Dial x={214} y={60} along="M196,60 H176" />
    </>
  ),
  dial_on_valve: (
    <>
      <Train />
      <OnRetainer />
    </>
  ),
  drop_to_piston: (
    <>
      <Train />
      <OnRetainer />
      <path className="tool-part" d="M176,132 v18 M170,144 l6,8 l6,-8" />
    </>
  ),
  plug_hole: (
    <>
      <Train />
      <path className="tool-part" d="M214,126 L236,104" />
      <Dial x={236} y={84} along="" />
    </>
  ),
  stem_gauge: (
    <>
      <Train bare />
      <path className="tool-part" d="M164,104 v-58 h40 v58 M184,46 v10" />
    </>
  ),
  deck_bridge: (
    <>
      <path className="metal-line" d="M40,92 h44 v80 M220,92 h-44 v80" />
      <path className="metal-fill" d="M86,98 h88 v62 h-88 z" />
      <path className="tool-part" d="M58,88 h144 v-12 h-144 z" />
      <Dial x={158} y={46} along="M158,64 V96" />
    </>
  ),
  caliper_on_pushrod: (
    <>
      <path className="metal-fill" d="M60,94 h140 v10 h-140 z" />
      <circle className="tool-part" cx={54} cy={99} r={7} />
      <circle className="tool-part" cx={206} cy={99} r={7} />
      <Caliper x={44} y={50} width={172} />
    </>
  ),
  checking_pushrod: (
    <>
      <Train />
      <path className="tool-part" d="M66,88 L82,44 M70,70 l12,4 M73,62 l12,4" />
    </>
  ),
  feeler: (
    <>
      <Train />
      <path className="tool-part" d="M182,44 L232,32" />
    </>
  ),
  clay: (
    <>
      <Train />
      <path className="tool-fill" d="M158,150 q18,-10 36,0 z" />
    </>
  ),
  dial_on_seat: (
    <>
      <Train bare />
      <path className="tool-part" d="M184,60 v74 M184,128 h-22" />
      <Dial x={214} y={56} along="M198,62 H184" />
    </>
  ),
  scale: (
    <>
      <path className="metal-fill" d="M70,96 q60,-34 124,0 l-6,10 q-56,-26 -112,0 z" />
      <path className="metal-line" d="M120,86 v70 M96,156 h48" />
      <circle className="metal-line" cx={120} cy={84} r={7} />
      <path className="tool-part" d="M188,108 v22 M164,130 h50 M168,130 v26 h42 v-26" />
    </>
  ),
  burette: (
    <>
      <path className="metal-line" d="M50,120 h160 v50 h-160 z" />
      <path className="tool-fill" d="M84,120 q46,44 92,0 z" />
      <path className="tool-part" d="M60,116 h140 M126,20 v74 h8 v-74 M130,94 v22 M120,100 h20" />
    </>
  ),
  makers_card: (
    <>
      <path className="metal-line" d="M40,150 h180" />
      <Lobe x={90} y={128} size={0.7} />
      <Lobe x={140} y={128} size={0.7} />
      <path
        className="tool-part"
        d="M150,30 h70 v84 h-70 z M162,48 h46 M162,62 h46 M162,76 h46 M162,90 h30"
      />
    </>
  ),
  flow_bench: (
    <>
      <path className="metal-line" d="M70,52 h120 v40 h-120 z" />
      <path className="tool-part" d="M88,92 v70 h84 v-70 M96,134 q8,-8 16,0 t16,0 t16,0 t16,0" />
      <Dial x={130} y={26} along="M130,44 V70" />
    </>
  ),
}
