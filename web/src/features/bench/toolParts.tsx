/** Parts that drawings of tools are made of. */

/** A dial with its needle, and its plunger along a path. */
export function Dial({ x, y, along }: { x: number; y: number; along: string }) {
  return (
    <g className="tool-part">
      {along === '' ? null : <path d={along} />}
      <circle cx={x} cy={y} r={18} />
      <path d={`M${x},${y} l9,-9`} />
      <path d={`M${x},${y - 18} v4 M${x + 18},${y} h-4 M${x - 18},${y} h4`} />
    </g>
  )
}

/** A degree wheel about a shaft, with its pointer. */
export function Wheel({ x, y }: { x: number; y: number }) {
  const marks = Array.from({ length: 24 }, (_, place) => (place * Math.PI) / 12)
  const at = (angle: number, radius: number) =>
    `${(x + radius * Math.cos(angle)).toFixed(1)},${(y + radius * Math.sin(angle)).toFixed(1)}`
  return (
    <g className="tool-part">
      <circle cx={x} cy={y} r={50} />
      {marks.map((angle) => (
        <path key={angle} d={`M${at(angle, 50)} L${at(angle, 45)}`} />
      ))}
      <path d={`M${x + 66},${y - 8} L${x + 51},${y - 3} L${x + 66},${y + 2} Z`} />
    </g>
  )
}

/** A lobe, its nose upward. */
export function Lobe({ x, y, size = 1 }: { x: number; y: number; size?: number }) {
  return (
    <g transform={`translate(${x} ${y}) scale(${size})`}>
      <path
        className="metal-fill"
        d="M-20,0 a20,20 0 1,0 40,0 C18,-16 10,-24 8,-30 a8,8 0 0,0 -16,0 C-10,-24 -18,-16 -20,0 z"
      />
    </g>
  )
}

/** From the cam to the valve, and the piston below; `bare` without rocker and spring. */
export function Train({ bare = false }: { bare?: boolean }) {
  return (
    <g>
      <Lobe x={64} y={132} size={0.8} />
      <path className="metal-line" d="M55,106 v-20 h18 v20 z" />
      {bare ? null : (
        <>
          <path className="metal-line" d="M64,86 L84,40" />
          <path className="metal-fill" d="M78,38 Q130,6 188,46 L182,54 Q130,22 84,46 z" />
          <circle className="metal-line" cx={128} cy={30} r={5} />
          <path className="metal-line" d="M172,62 l24,8 l-24,8 l24,8 l-24,8 l24,8 M168,60 h32" />
        </>
      )}
      <path className="metal-line" d="M184,50 V128" />
      <path className="metal-fill" d="M162,134 q20,-4 22,-14 q2,10 22,14 z" />
      <path className="metal-line" d="M120,112 h40 l-6,22 M248,112 h-40 l6,22 M160,112 h48" />
      <path className="metal-line" d="M138,134 V186 M238,134 V186" />
      <path className="metal-fill" d="M140,154 h96 v32 h-96 z" />
    </g>
  )
}
