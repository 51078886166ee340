import type { LimitReport, Place, Verdict } from '../../api/client'

export type Order = 'tightest' | 'place'

const RANK: Record<Verdict, number> = { fails: 0, tight: 1, unknown: 2, advice: 3, ok: 4 }
const PLACES: readonly Place[] = [
  'plan',
  'events',
  'lobe',
  'lifter',
  'rocker',
  'pushrod',
  'spring',
  'clearance',
  'torque',
]

/** The margins in the order asked for. Pure. */
export function inOrder(limits: readonly LimitReport[], order: Order): LimitReport[] {
  return order === 'tightest'
    ? tightestFirst(limits)
    : [...limits].sort((a, b) => PLACES.indexOf(a.place) - PLACES.indexOf(b.place))
}

/** Whether a margin is met with room, and may be folded away. Pure. */
export function isMet(limit: LimitReport): boolean {
  return limit.verdict === 'ok'
}

/** "2 fail, 20 ok": what there is of each verdict. Pure. */
export function tallyOf(limits: readonly Pick<LimitReport, 'verdict'>[]): string {
  const words = [
    ['fails', 'fail'],
    ['tight', 'tight'],
    ['unknown', 'unknown'],
    ['advice', 'advice'],
    ['ok', 'ok'],
  ] as const
  return words
    .flatMap(([verdict, word]) => {
      const count = limits.filter((l) => l.verdict === verdict).length
      return count > 0 ? [`${count} ${word}`] : []
    })
    .join(', ')
}

/** Tightest first: by verdict, then by how near the figure lies to its bound on the bar. Pure. */
export function tightestFirst(limits: readonly LimitReport[]): LimitReport[] {
  return [...limits].sort((a, b) => RANK[a.verdict] - RANK[b.verdict] || room(a) - room(b))
}

function room(limit: LimitReport): number {
  const shown = limit.shown
  if (!shown) return 2
  const distance = Math.min(...shown.need_at.map((bound) => Math.abs(shown.have_at - bound)))
  return (limit.margin ?? 0) < 0 ? -distance : distance
}

export function key(limit: LimitReport): string {
  return `${limit.id}-${limit.side ?? 'both'}`
}
