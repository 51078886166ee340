import { useMemo, useState } from 'react'
import { useSessionPart } from './useSession'

export interface Asked {
  /** The document that was asked about; nothing before anybody asked. */
  readonly document: string | undefined
  /** Asks about the document in view. */
  readonly ask: () => void
  /** Whether that was another document than the one in view. */
  readonly isOld: boolean
}

/**
 * Work that is asked for by hand and whose outcome goes into the document's object `own`: taking it changes that object, and makes the
 * outcome no older by it; any other edit does.
 */
export function useAsked(own: string): Asked {
  const present = useSessionPart((state) => state.history.present)
  const [document, setDocument] = useState<string>()
  const isOld = useMemo(
    () => document !== undefined && !isSameBut(own, document, present),
    [own, document, present],
  )
  return { document, ask: () => setDocument(present), isOld }
}

/** Whether two documents hold the same but for the object `own` at the top. Pure. */
export function isSameBut(own: string, one: string, other: string): boolean {
  return one === other || without(own, one) === without(own, other)
}

function without(own: string, text: string): string {
  const entries = Object.entries(JSON.parse(text) as Record<string, unknown>)
  const rest = entries.filter(([key]) => key !== own).sort(([a], [b]) => (a < b ? -1 : 1))
  return JSON.stringify(rest)
}
