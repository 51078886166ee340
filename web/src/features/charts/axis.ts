/** Round steps for about so many of them. Pure. */
function stepOf(span: number, count: number): number {
  const rough = span / Math.max(1, count)
  const power = 10 ** Math.floor(Math.log10(rough))
  const unit = rough / power
  return power * (unit <= 1 ? 1 : unit <= 2 ? 2 : unit <= 5 ? 5 : 10)
}

/**
 * Sensible bounds around some values: round, from zero where the values come near it, and else with a little room, so that
 * neither a flat curve is stretched to the frame nor a tall one drawn as a wall. Pure.
 */
export function scaled(values: readonly number[]): [number, number] {
  const [low, high] = [Math.min(...values), Math.max(...values)]
  if (!Number.isFinite(low) || !Number.isFinite(high)) return [0, 1]
  const bottom = low >= 0 && low < 0.35 * high ? 0 : low
  // A curve flatter than a fifth of its height keeps its slope in proportion.
  const span = Math.max(high - bottom, 0.2 * Math.max(Math.abs(high), Math.abs(low)), 1e-9)
  const step = stepOf(span, 5)
  const from = Math.floor((high - span) / step + 1e-9) * step
  const to = Math.ceil(high / step - 1e-9) * step
  return [
    bottom === 0 && low >= 0 ? 0 : Math.min(from, Math.floor(low / step) * step),
    to === high ? to + 0.25 * step : to,
  ]
}
