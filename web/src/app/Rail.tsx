import { useSessionState } from '../features/session/useSession'
import type { StepName } from './steps'
import { stateOf, STEPS } from './steps'

/** The way through the work, each step with its state in a word. */
export function Rail({ step, onStep }: { step: StepName; onStep: (step: StepName) => void }) {
  const { answer } = useSessionState()
  const limits = answer?.analysis.candidates[0]?.limits ?? []
  return (
    <nav className="rail" aria-label="Steps">
      {STEPS.map(({ name, title }) => {
        const state = stateOf(name, limits, answer?.candidate_index ?? 0)
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
