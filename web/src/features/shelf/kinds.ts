import type { PartKind } from '../../api/client'

/** Kinds of parts as people say them. */
export const KINDS: readonly { readonly kind: PartKind; readonly many: string }[] = [
  { kind: 'cam', many: 'cams' },
  { kind: 'lobe', many: 'lobes' },
  { kind: 'lifter', many: 'lifters' },
  { kind: 'rocker', many: 'rockers' },
  { kind: 'pushrod', many: 'pushrods' },
  { kind: 'valve', many: 'valves' },
  { kind: 'retainer', many: 'retainers' },
  { kind: 'spring', many: 'springs' },
]

/** Where a candidate says which part it has. Pure. */
export function partField(
  kind: PartKind,
  index: number,
  side: 'intake' | 'exhaust' = 'intake',
): string {
  const candidate = `candidates[${String(index)}]`
  if (kind === 'cam') return `${candidate}.cam.part`
  return kind === 'lobe' ? `${candidate}.cam.${side}.part` : `${candidate}.train.${kind}.part`
}

/** Parts bought for one side alone. Pure. */
export function isOneSided(kind: PartKind): boolean {
  return kind === 'lobe' || kind === 'valve'
}
