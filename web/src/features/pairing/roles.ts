import type { Role } from '../../api/client'

/** What a device may, from least to most. */
export const ROLES: readonly {
  readonly value: Role
  readonly label: string
  readonly says: string
}[] = [
  {
    value: 'look',
    label: 'Look',
    says: 'Everything is seen, nothing is kept: for a screen on the wall.',
  },
  {
    value: 'readings',
    label: 'Readings',
    says: 'Sessions and signatures of the assembly are kept, nothing else: for the bench.',
  },
  {
    value: 'everything',
    label: 'Everything',
    says: 'As this screen, but for pairing, archives and deleting for good.',
  },
]

/** A moment the server tells in UTC, by the clock on the wall. Pure but for the wall's clock. */
export function sinceOf(utc: string): string {
  const at = new Date(utc)
  return Number.isNaN(at.getTime())
    ? utc
    : at.toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' })
}
