import { App } from 'antd'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { PartKind } from '../api/client'
import type { Paper, Place, StepName, Ways } from '../model/place'
import { shownIn } from '../model/state'
import { useSession, useSessionPart } from '../model/useSession'
import { stepNamed, stepOf } from '../steps/registry'
import { useAddress } from './address'

type Go = ReturnType<typeof useAddress>['go']

/** The place this tab is at and the ways from it, by the address; the candidate in view goes with it. */
export function useWays(openShelf: (kind: PartKind) => void): Ways {
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const { address, go } = useAddress()
  const first = useFirstStep()
  const build = useSessionPart((state) => state.summary.id)
  const step = address.step ?? first
  useCandidateOfAddress({ build, step }, address.candidate, go)
  const { focus, paper } = address
  const place: Place = useMemo(() => ({ step, focus, paper }), [step, focus, paper])
  const goToStep = useCallback(
    (to: StepName) => go({ build, step: to, paper: undefined }),
    [build, go],
  )
  useTitle(step)
  return useMemo(
    () => ({
      place,
      goToStep,
      goToField: (field) =>
        go({ build, step: stepOf(field, index), paper: undefined, focus: field }),
      openPaper: (to, what) => go({ build, paper: to, focus: what }),
      // Whoever measured comes back to the measuring.
      openBench: () =>
        go({ build, step: isOfBench(place.paper) ? 'bench' : step, paper: undefined }),
      openShelf,
    }),
    [place, goToStep, go, build, index, step, openShelf],
  )
}

function isOfBench(paper: Paper | undefined): boolean {
  return paper === 'at-engine' || paper === 'session-sheet'
}

/** A build without any lobe begins at the plan; one with lobes opens where they are seen. */
function useFirstStep(): StepName {
  const session = useSession()
  // Decided once: giving the first lobe must not carry the plan away.
  const [found] = useState<StepName>(() =>
    /"(lobe_lift|profile)"/.test(session.read().history.present) ? 'events' : 'plan',
  )
  return found
}

/** Keeps the candidate in view and the one in the address the same, whichever was changed. */
function useCandidateOfAddress(
  at: { build: number; step: StepName },
  named: string | undefined,
  go: Go,
): void {
  const { build, step } = at
  const session = useSession()
  const { message } = App.useApp()
  const viewed = useSessionPart((state) => state.candidate ?? shownIn(state))
  const all = useSessionPart((state) => state.answer?.candidates)
  const followed = useRef(named)
  useEffect(() => {
    if (named === undefined || named === followed.current) return
    followed.current = named
    if (named !== session.read().candidate) session.choose(named)
  }, [named, session])
  useEffect(() => {
    // What the effect above has just chosen counts, not what was on screen when both were set up.
    const now = session.read().candidate ?? viewed
    if (now === undefined || (now === followed.current && now === named)) return
    // The build on screen is named too: an address without one shows the build saved last.
    const isFirst = followed.current === undefined
    followed.current = now
    go({ build, ...(isFirst ? { step } : {}), candidate: now }, isFirst)
  }, [viewed, named, build, step, go, session])
  useEffect(() => {
    if (named === undefined || all === undefined || all.some(({ id }) => id === named)) return
    const first = shownIn(session.read())
    if (first === undefined || session.read().candidate !== named) return
    void message.info(`There is no candidate “${named}” in this build.`)
    // Chosen and taken back at once: nothing on screen changes, so that the address is put right here.
    followed.current = first
    session.choose(first)
    go({ build, candidate: first }, true)
  }, [named, all, session, message, build, go])
}

function useTitle(step: StepName): void {
  const name = useSessionPart((state) => state.answer?.name ?? state.summary.name)
  const candidate = useSessionPart(
    (state) => state.answer?.candidates[state.answer.candidate_index]?.name,
  )
  useEffect(() => {
    document.title = [candidate, name, stepNamed(step).title, 'Upper Lobe']
      .filter((part) => part !== undefined)
      .join(' · ')
    return () => {
      document.title = 'Upper Lobe'
    }
  }, [candidate, name, step])
}
