import type { Reading, UnitSystem } from '../api/client'

export interface Moved {
  readonly id: string
  readonly label: string
  readonly before: string
  readonly after: string
}

/** Readings whose text differs, in the order of the newer list. Pure. */
export function moved(
  before: readonly Reading[],
  after: readonly Reading[],
  system: UnitSystem,
): Moved[] {
  const known = new Map(before.map((reading) => [reading.id, reading.shown[system]]))
  return after.flatMap((reading) => {
    const was = known.get(reading.id)
    const now = reading.shown[system]
    return was === undefined || was === now
      ? []
      : [{ id: reading.id, label: reading.label, before: was, after: now }]
  })
}
