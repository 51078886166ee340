/** A figure without more digits than can be read off a chart. */
export function readable(value: number): string {
  const size = Math.abs(value)
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3
  return value.toFixed(digits).replace(/^(-?)0\./, '$1.')
}
