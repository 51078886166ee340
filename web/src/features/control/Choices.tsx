import type { DynamicsReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** Choices on which practitioners differ: what each school says, and what the figures of this build say to it. */
export function Choices({ choices }: { choices: DynamicsReport['choices'] }) {
  const system = useSessionPart((state) => state.system)
  if (choices.length === 0) return null
  return (
    <section aria-label="Choices of the trade">
      <h2>Choices of the trade, with this build’s figures</h2>
      <dl className="choices">
        {choices.map((choice) => (
          <div key={choice.topic}>
            <dt>{choice.question}</dt>
            <dd>
              {choice.says[system]}
              <span className="quiet">
                {choice.schools.map((school, place) => (
                  <span key={school}>
                    {place === 0 ? 'One school: ' : ' The other: '}
                    {school}.
                  </span>
                ))}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
