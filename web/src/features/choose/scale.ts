const STEPS = [
  0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000,
]

/** A straight scale over values, a little wider than they are, and round ticks on it. Pure. */
export function scaleOf(values: readonly number[], from: number, to: number) {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const room = 0.04 * Math.max(most - least, 1e-6)
  const [low, high] = [least - room, most + room]
  const span = high - low
  const step = STEPS.find((each) => span / each <= 7) ?? 10000
  const first = Math.ceil(low / step)
  const count = Math.max(Math.floor(high / step) - first + 1, 0)
  const ticks = Array.from({ length: count }, (_, i) => Number(((first + i) * step).toFixed(6)))
  return { at: (value: number) => from + ((to - from) * (value - low)) / span, ticks }
}
