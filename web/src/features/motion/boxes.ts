import type { TrainReport } from '../../api/client'

type Pair = TrainReport['matching'][number]

export interface Box {
  readonly title: string
  readonly pairs: readonly Pair[]
}

/** Places gathered by cylinder, or one by one where they are not two for each. Pure. */
export function boxesOf(matching: readonly Pair[]): Box[] {
  const boxes = new Map<string, Pair[]>()
  for (const pair of matching) {
    const title =
      typeof pair.cylinder === 'number' ? `Cylinder ${pair.cylinder}` : `Place ${pair.place}`
    boxes.set(title, [...(boxes.get(title) ?? []), pair])
  }
  return [...boxes].map(([title, pairs]) => ({ title, pairs }))
}
