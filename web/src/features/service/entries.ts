import type { FormField } from '../../api/client'

/** Entries of the service log, as words and rows. Pure. */

export const EVENTS = ['assembled', 'inspection', 'lash_set', 'oil', 'parts', 'failure'] as const

const WORDS: Record<string, string> = {
  assembled: 'put together',
  inspection: 'inspection',
  lash_set: 'lash set',
  oil: 'oil and filter',
  parts: 'parts changed',
  failure: 'failure',
}

/** What was done, as people say it. Pure. */
export function eventWords(event: string): string {
  return WORDS[event] ?? event.replaceAll('_', ' ')
}

/** An identifier that no entry has. Pure. */
export function freeId(ids: readonly string[]): string {
  let number = ids.length + 1
  while (ids.includes(`v${String(number)}`)) number += 1
  return `v${String(number)}`
}

/** What may be read of a valve, in the order of the columns. */
export const READ = ['seat_load', 'lash', 'guide_play', 'lobe_lift'] as const
export type Read = (typeof READ)[number]

export interface EntryFields {
  readonly plain: FormField[]
  readonly changed: FormField | undefined
  readonly readings: Partial<Record<Read, FormField>>
}

/** The fields of an entry: its own, what was changed, and the readings. Pure. */
export function partsOfEntry(own: readonly FormField[]): EntryFields {
  const ending = (key: string) => own.find(({ field }) => field.endsWith(`.${key}`))
  const readings: Partial<Record<Read, FormField>> = {}
  for (const key of READ) {
    const field = ending(`readings.${key}`)
    if (field) readings[key] = field
  }
  return {
    plain: own.filter(({ table }) => !table),
    changed: ending('changed'),
    readings,
  }
}

/** A valve's place in the grid: cylinder and side. */
export interface Valve {
  readonly cylinder: number
  readonly side: 'intake' | 'exhaust'
}

/** What a valve is called. Pure. */
export function valveName({ cylinder, side }: Valve): string {
  return `cylinder ${String(cylinder)} ${side}`
}

/** Every valve of so many cylinders, and those that were read beside. Pure. */
export function valvesOf(
  cylinders: number,
  readings: Partial<Record<Read, FormField>>,
): readonly Valve[] {
  const read = Object.values(readings).flatMap((field) => field.table?.rows ?? [])
  const most = Math.max(cylinders, ...read.map(([cylinder]) => Number(cylinder) || 0))
  return Array.from({ length: most }, (_, i) => i + 1).flatMap((cylinder) => [
    { cylinder, side: 'intake' as const },
    { cylinder, side: 'exhaust' as const },
  ])
}

/** What is written of a valve; the last where it was read twice. Pure. */
export function textOf(rows: readonly (readonly string[])[], valve: Valve): string {
  const own = rows.filter(([cylinder, side]) => isOf(cylinder, side, valve))
  return own.at(-1)?.[2] ?? ''
}

function isOf(cylinder: string | undefined, side: string | undefined, valve: Valve): boolean {
  return Number(cylinder) === valve.cylinder && side === valve.side
}
