/** A trace of measured valve motion as the document names it. */
export interface Trace {
  readonly id: string
  readonly candidate: string
  readonly side: string
  readonly speed: string
  readonly turnedBy: string
  readonly points: number
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null
}

function word(of: Record<string, unknown>, key: string, otherwise = ''): string {
  const value = of[key]
  return typeof value === 'string' ? value : otherwise
}

/** The traces of a document, in its order; those of no candidate are of the first. Pure. */
export function tracesOf(document: string): readonly Trace[] {
  const build: unknown = JSON.parse(document)
  if (!isRecord(build) || !Array.isArray(build.valve_motion)) return []
  const list: readonly unknown[] = Array.isArray(build.candidates) ? build.candidates : []
  const first = isRecord(list[0]) ? word(list[0], 'id') : ''
  return build.valve_motion.filter(isRecord).map((own) => ({
    id: word(own, 'id'),
    candidate: word(own, 'candidate', first),
    side: word(own, 'side'),
    speed: word(own, 'speed'),
    turnedBy: word(own, 'turned_by', 'rig'),
    points: Array.isArray(own.points) ? own.points.length : 0,
  }))
}
