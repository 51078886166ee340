import { createContext, useContext } from 'react'
import type { PartKind } from '../api/client'

/** The steps of the work, in the builder's order. */
export const STEP_NAMES = [
  'plan',
  'engine',
  'events',
  'lobe',
  'lifter',
  'rocker',
  'pushrod',
  'spring',
  'control',
  'clearance',
  'torque',
  'choose',
  'decide',
  'order',
  'bench',
  'dyno',
  'service',
] as const

export type StepName = (typeof STEP_NAMES)[number]

/** What may stand in place of the bench, to be read or printed. */
export type Paper = 'sheet' | 'session-sheet' | 'at-engine'

/** Where in the work this tab is. */
export interface Place {
  readonly step: StepName
  /** A field to go to. */
  readonly focus: string | undefined
  readonly paper: Paper | undefined
}

/** The ways from anywhere to anywhere else; features go them without knowing the steps. */
export interface Ways {
  readonly place: Place
  readonly goToStep: (step: StepName) => void
  /** To the step that has the field, and to the field in it. */
  readonly goToField: (field: string) => void
  readonly openPaper: (paper: Paper, focus?: string) => void
  /** Back from paper to the bench. */
  readonly openBench: () => void
  /** Opens the parts shelf at a kind. */
  readonly openShelf: (kind: PartKind) => void
}

export const PlaceContext = createContext<Ways | undefined>(undefined)

export function usePlace(): Ways {
  const ways = useContext(PlaceContext)
  if (!ways) throw new Error('no place around this component')
  return ways
}
