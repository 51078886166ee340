import type { LimitReport, Place, Verdict } from '../../api/client'

export type Order = 'tightest' | 'place'

/** One rule held against one valve or both: a row of the margins. */
export interface Margin {
  readonly id: string
  /** Without the side. */
  readonly title: string
  /** Intake before exhaust; one for a rule of the whole engine. */
  readonly limits: readonly LimitReport[]
  /** What the row says: the side that is worse off. */
  readonly worst: LimitReport
}

/** The gravest first. */
export const RANK: Record<Verdict, number> = { fails: 0, tight: 1, unknown: 2, advice: 3, ok: 4 }
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

/** Both sides of a rule in one. Pure. */
export function marginsOf(limits: readonly LimitReport[]): Margin[] {
  const byId = new Map<string, LimitReport[]>()
  for (const limit of limits) byId.set(limit.id, [...(byId.get(limit.id) ?? []), limit])
  return [...byId].flatMap(([id, both]) => {
    const [worst] = [...both].sort(worse)
    return worst === undefined ? [] : [{ id, title: unsided(worst), limits: both, worst }]
  })
}

/** The margins in the order asked for. Pure. */
export function inOrder(margins: readonly Margin[], order: Order): Margin[] {
  const place = ({ worst }: Margin) => PLACES.indexOf(worst.place)
  return order === 'tightest'
    ? [...margins].sort((a, b) => worse(a.worst, b.worst))
    : [...margins].sort((a, b) => place(a) - place(b))
}

/** Share of engines that may fail a limit that is folded away. */
const SELDOM = 0.01

/** Whether a margin is met with room, also when it is built, and may be folded away. Pure. */
export function isMet({ worst, limits }: Margin): boolean {
  const likeliest = Math.max(...limits.map(({ chance }) => chance?.any ?? 0))
  return worst.verdict === 'ok' && likeliest <= SELDOM
}

/** "2 fail, 20 ok": what there is of each verdict, a rule of both valves counted once. Pure. */
export function tallyOf(margins: readonly Pick<Margin, 'worst'>[]): string {
  const words = [
    ['fails', 'fail'],
    ['tight', 'tight'],
    ['unknown', 'unknown'],
    ['advice', 'advice'],
    ['ok', 'ok'],
  ] as const
  return words
    .flatMap(([verdict, word]) => {
      const count = margins.filter(({ worst }) => worst.verdict === verdict).length
      return count > 0 ? [`${count} ${word}`] : []
    })
    .join(', ')
}

/** Limits one by one, worst first. Pure. */
export function tightestFirst(limits: readonly LimitReport[]): LimitReport[] {
  return [...limits].sort(worse)
}

/** By verdict, then by how near the figure lies to its bound on the bar. */
function worse(a: LimitReport, b: LimitReport): number {
  return RANK[a.verdict] - RANK[b.verdict] || room(a) - room(b)
}

function room(limit: LimitReport): number {
  const shown = limit.shown
  if (!shown) return 2
  const distance = Math.min(...shown.need_at.map((bound) => Math.abs(shown.have_at - bound)))
  return (limit.margin ?? 0) < 0 ? -distance : distance
}

/** A title without its side, its first letter a capital. */
function unsided({ title, side }: LimitReport): string {
  const bare = side ? title.replace(/^(Intake|Exhaust) /, '') : title
  return bare.charAt(0).toUpperCase() + bare.slice(1)
}

/** How a need is said: by the bounds it has. Pure. */
export function wordOf({ min, max }: LimitReport['need']): string {
  if (typeof min === 'number') return typeof max === 'number' ? 'within' : 'at least'
  return 'at most'
}
