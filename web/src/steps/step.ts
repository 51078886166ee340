import type { ComponentType } from 'react'
import type { PartKind } from '../api/client'
import type { Group } from '../model/groups'
import type { StepName } from '../model/place'

/** One step of the work: everything that rail, bench, palette, keys and addresses need of it. */
export interface Step {
  readonly name: StepName
  readonly title: string
  /** What the step answers: a sentence, figures, pictures. It stands above the fields. */
  readonly Answer?: ComponentType
  readonly groups: readonly Group[]
  /** Whether its fields are shown below its answer. */
  readonly form: boolean
  /** Whether the strip is its subject: it begins tall there, and slim elsewhere. */
  readonly tall: boolean
  /** Whether its drawing is the cylinder; others need the width. */
  readonly drawn: boolean
  /** Kinds of parts it takes from the shelf. */
  readonly shelf: readonly PartKind[]
}

const PLAIN = { groups: [], form: true, tall: false, drawn: false, shelf: [] } as const

/** A step with what most of them have left out. */
export function step(own: Pick<Step, 'name' | 'title'> & Partial<Step>): Step {
  return { ...PLAIN, ...own }
}
