/** A table whose angles follow each other from any of them, as a value for every degree from firing top. Pure. */
export function overCycle(crank: readonly number[], values: readonly number[]): number[] {
  const [first = 0, second = first + 1] = crank
  const step = (second - first + 720) % 720 || 1
  return Array.from({ length: 721 }, (_, deg) => {
    const place = ((deg - first + 1440) % 720) / step
    const left = Math.floor(place) % Math.max(values.length, 1)
    const from = values[left] ?? 0
    return from + (place % 1) * ((values[(left + 1) % Math.max(values.length, 1)] ?? from) - from)
  })
}
