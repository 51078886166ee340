import type { SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'

/** What the readings come to in a sentence, what it lacks, and what to look at again before they are believed. */
export function Said({ shown }: { readonly shown: SessionReport }) {
  const system = useSessionPart((state) => state.system)
  const { goToField } = usePlace()
  return (
    <>
      <p className={`session-says ${shown.verdict}`} role="status">
        {shown.says[system]}{' '}
        {shown.needs.map(({ field, label }) => (
          <button key={field} type="button" className="link" onClick={() => goToField(field)}>
            {label}
          </button>
        ))}
      </p>
      {shown.questions.map((question) => (
        <p key={question} className="fault" role="alert">
          Look again: {question}
        </p>
      ))}
    </>
  )
}
