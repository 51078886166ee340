import { useState } from 'react'
import type { Edit, SessionReport } from '../../api/client'
import type { Outcome } from '../../model/outbox'
import type { useOutbox } from '../../model/useOutbox'
import { useSession, useSessionPart } from '../../model/useSession'
import { useFaultText } from '../fields/faults'
import type { Next } from './sessions'
import { stillAsked, taken, takenBack, wordsOf } from './sessions'

/** How readings of a session are taken: what comes next, what was last, and what is wrong with what was typed. */
export interface Taking {
  readonly next: Next | undefined
  readonly last: Next | undefined
  readonly fault: string | undefined
  /** Takes a reading; tells whether the cells are free for the one after. */
  readonly take: (next: Next, texts: readonly string[]) => Promise<boolean>
  readonly takeBack: (() => void) | undefined
}

/** Into the document on screen, which is saved by hand. */
export function useTaking(shown: SessionReport): Taking {
  const work = useSession()
  const key = `bench ${shown.id}`
  const refused = useSessionPart((state) => state.refusals[key])
  const fault = useFaultText(refused, shown.next?.table)
  const { last } = shown
  return {
    next: shown.next ?? undefined,
    last: last ?? undefined,
    fault,
    take: async (next, texts) => {
      await work.type(key, texts.join(', '), taken(shown.id, next, texts))
      return !work.read().refusals[key]
    },
    takeBack: last
      ? () => {
          work.forget(key)
          work.edit(takenBack(shown.id, last))
        }
      : undefined,
  }
}

const TAKEN_BACK = 'the last reading taken back'

/** What is on its way to the shop's server, and the ways to send more. */
export type Sent = ReturnType<typeof useOutbox>

/** To the shop's server as they are taken; while it is away they wait, and the hand goes on by what was asked before. */
export function useSending(shown: SessionReport, { items, put, drop }: Sent): Taking {
  const ahead = useSessionPart((state) => state.answer?.ahead)
  const [fault, setFault] = useState<string>()
  const waiting = items.filter(
    ({ refused, edits }) => refused === undefined && isOf(shown.id, edits),
  )
  const last = shown.last ?? undefined
  const takeBack = () => {
    const mine = waiting.at(-1)
    setFault(undefined)
    if (mine) drop(mine.key)
    else if (last) void put([takenBack(shown.id, last)], TAKEN_BACK).then(told(TAKEN_BACK))
  }
  const told = (says: string) => (outcome: Outcome) => {
    if (typeof outcome === 'object') setFault(`Not taken, ${says}: ${outcome.refused}`)
  }
  return {
    next: stillAsked(
      ahead ?? (shown.next ? [shown.next] : []),
      waiting.flatMap(({ edits }) => edits),
    ),
    last,
    fault,
    take: (next, texts) => {
      // The cells are free at once: how long the server takes to answer, or not to, is nothing the hand waits for.
      const says = wordsOf(next, texts)
      setFault(undefined)
      void put([taken(shown.id, next, texts)], says).then(told(says))
      return Promise.resolve(true)
    },
    takeBack: waiting.length > 0 || last ? takeBack : undefined,
  }
}

function isOf(session: string, [edit]: readonly Edit[]): boolean {
  return edit !== undefined && 'take_reading' in edit && edit.take_reading.session === session
}
