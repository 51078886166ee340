interface Lane {
  readonly name: string
  readonly pulses: readonly { readonly cylinder: string; readonly at: number }[]
  /** Degrees from each pulse to the next in this collector. */
  readonly intervals: readonly number[]
}

/** Pulses of evenly firing cylinders, by collector; all in one lane when no collectors are given. Pure. */
export function pulsesOf(
  order: readonly string[],
  collectors: readonly (readonly string[])[],
): Lane[] {
  const step = 720 / Math.max(1, order.length)
  const all = order.map((cylinder, place) => ({ cylinder, at: place * step }))
  const groups =
    collectors.length > 0
      ? collectors.map((cylinders) => all.filter((pulse) => cylinders.includes(pulse.cylinder)))
      : [all]
  return groups
    .filter((pulses) => pulses.length > 0)
    .map((pulses, place) => ({
      name: collectors.length > 0 ? `collector ${place + 1}` : 'all',
      pulses,
      intervals: pulses.map((pulse, i) => {
        const next = pulses[(i + 1) % pulses.length]
        return ((((next?.at ?? 0) - pulse.at) % 720) + 720) % 720 || 720
      }),
    }))
}
