/** The value that so much of a sorted list lies below: 0.5 is the median. */
export function share(sorted: readonly number[], part: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0
}
