import { useCandidate, useSessionPart } from '../features/session/useSession'
import type { StepName } from './steps'
import { stateOf, STEPS } from './steps'

/** The way through the work, each step with its state in a word. */
export function Rail({ step, onStep }: { step: StepName; onStep: (step: StepName) => void }) {
  const limits = useCandidate()?.limits ?? []
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  return (
    <nav className="rail" aria-label="Steps">
      {STEPS.map(({ name, title }) => {
        const state = stateOf(name, limits, index)
        return (
          <button type="button" key={name} className={name === step ? 'chosen' : ''} aria-current={name === step ? 'step' : undefined} onClick={() => { onStep(name) }}>
            <span>{title}</span>
            <span className={`state ${state ?? ''}`}>{state ?? ''}</span>
          </button>
        )
      })}
    </nav>
  )
}
