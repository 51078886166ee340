import { useCallback, useMemo } from 'react'
import { navigate, useHashLocation } from 'wouter/use-hash-location'
import type { Paper, Place, StepName } from '../model/place'
import { STEP_NAMES } from '../model/place'

/** Where a tab is, as its address says it: `#/build/3/spring/b/engine.bore`, or `#/build/3/sheet/b`. */
export interface Address extends Omit<Place, 'step'> {
  readonly build: number | undefined
  /** `undefined` where the address leaves it to the build. */
  readonly step: StepName | undefined
  readonly candidate: string | undefined
}

const PAPERS: readonly Paper[] = ['sheet', 'session-sheet', 'at-engine']

/** What a hash says; what it cannot mean is left out. Pure. */
export function addressOf(hash: string): Address {
  const [, what, build = '', place = '', candidate = '', focus = ''] = hash.split('/').map(decoded)
  const isBuild = what === 'build' && /^\d{1,15}$/.test(build)
  return {
    build: isBuild ? Number(build) : undefined,
    step: STEP_NAMES.find((name) => name === place),
    paper: PAPERS.find((name) => name === place),
    candidate: candidate === '' ? undefined : candidate,
    focus: focus === '' ? undefined : focus,
  }
}

/** The hash of an address. Pure. */
export function hashOf({ build, step, paper, candidate, focus }: Address): string {
  const parts = ['build', String(build ?? ''), paper ?? step ?? '', candidate ?? '', focus ?? '']
  return `/${parts.map(encodeURIComponent).join('/').replace(/\/+$/, '')}`
}

function decoded(part: string): string {
  try {
    return decodeURIComponent(part)
  } catch {
    return ''
  }
}

/** The address of this tab, and the way to another one: back and reload return to the very place. */
export function useAddress() {
  const [hash] = useHashLocation()
  const address = useMemo(() => addressOf(hash), [hash])
  const go = useCallback((change: Partial<Address>, replace = false) => {
    const now = addressOf(window.location.hash.slice(1))
    const next = hashOf({ ...now, focus: undefined, ...change })
    if (next !== hashOf(now)) navigate(next, { replace })
  }, [])
  return { address, go }
}

/** Puts a build into the address without opening it anew: it is the one on screen. */
export function rememberBuild(id: number | undefined): void {
  const now = addressOf(window.location.hash.slice(1))
  if (id !== undefined) window.history.replaceState(null, '', `#${hashOf({ ...now, build: id })}`)
}
