import { useEffect, useMemo, useRef } from 'react'
import type { StepName } from '../model/place'
import { tallyOf } from '../model/groups'
import { useCandidate, useSessionPart } from '../model/useSession'
import { stateOf, STEPS } from '../steps/registry'

/** The way through the work, each step with its state in a word. */
export function Rail({ step, onStep }: { step: StepName; onStep: (step: StepName) => void }) {
  const limits = useCandidate()?.limits ?? []
  const fields = useSessionPart((state) => state.answer?.fields)
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const candidates = useSessionPart((state) => state.answer?.candidates.length) ?? 0
  const tallies = useMemo(
    () =>
      new Map(
        STEPS.map(({ name, groups }) => [name, tallyOf(groups, fields ?? [], index)] as const),
      ),
    [fields, index],
  )
  const word = (name: StepName): { text: string; verdict?: string } => {
    const verdict = stateOf(name, limits)
    if (verdict !== undefined) return { text: verdict, verdict }
    if (name === 'decide') return { text: candidates > 1 ? String(candidates) : '' }
    // Fields that are folded ask for nothing.
    const asks = STEPS.some(
      (step) => step.name === name && step.groups.some((group) => group.folded === undefined),
    )
    if (!asks) return { text: '' }
    const { assumed, given } = tallies.get(name) ?? { assumed: 0, given: 0 }
    return { text: given === 0 ? 'empty' : assumed > 0 ? `${assumed} assumed` : 'given' }
  }
  const way = useRef<HTMLElement>(null)
  useEffect(() => {
    // On a narrow page the way is one line that scrolls; the step at hand is in sight.
    const chosen = way.current?.querySelector('.chosen')
    chosen?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [step])
  return (
    <nav className="rail" aria-label="Steps" ref={way}>
      {STEPS.map(({ name, title }) => {
        const state = word(name)
        return (
          <button
            type="button"
            key={name}
            className={name === step ? 'chosen' : ''}
            aria-current={name === step ? 'step' : undefined}
            onClick={() => onStep(name)}
          >
            <span>{title}</span>
            <span className={`state ${state.verdict ?? ''}`}>{state.text}</span>
          </button>
        )
      })}
    </nav>
  )
}
