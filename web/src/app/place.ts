import { createContext, useContext } from 'react'
import type { PartKind } from '../api/client'
import type { StepName } from './steps'

/** Where in the work this tab is. */
export interface Place {
  readonly step: StepName
  /** A field to go to; changes with every jump. */
  readonly focus: string | undefined
  /** Whether the printable sheet stands in place of the bench. */
  readonly sheet: boolean
}

export interface PlaceControl {
  readonly place: Place
  readonly goToStep: (step: StepName) => void
  readonly goToField: (step: StepName, field: string) => void
  readonly openSheet: () => void
  readonly closeSheet: () => void
  /** Opens the parts shelf at a kind. */
  readonly openShelf: (kind: PartKind) => void
}

export const PlaceContext = createContext<PlaceControl | undefined>(undefined)

export function usePlace(): PlaceControl {
  const control = useContext(PlaceContext)
  if (!control) throw new Error('no place around this component')
  return control
}
