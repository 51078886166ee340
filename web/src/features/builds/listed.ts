import type { ListedBuild } from '../../api/client'
import { hasWords } from '../../model/words'
import { spoken } from '../fields/labels'

/** What a build is about: use, layout, bore by stroke as typed. Pure. */
export function aboutOf({ used_for, layout, bore, stroke }: ListedBuild): string {
  const size = typeof bore === 'string' && typeof stroke === 'string' ? `${bore} × ${stroke}` : bore
  return [typeof used_for === 'string' ? spoken(used_for) : undefined, layout, size]
    .filter((part) => typeof part === 'string' && part !== '')
    .join(', ')
}

export function lastChange({ saved_at }: ListedBuild): string {
  return new Date(saved_at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}

/** The builds whose name, use or size has every word that is looked for. Pure. */
export function searched(builds: readonly ListedBuild[], typed: string): ListedBuild[] {
  return builds.filter((build) => hasWords(`${build.name} ${aboutOf(build)}`, typed))
}
