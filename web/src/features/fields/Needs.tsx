import { usePlace } from '../../model/place'
import type { Named } from '../../api/client'
import { inSentence } from './labels'

/** Why something is not known, with the way to each field that would make it known: all of them at once. */
export function Needs({
  what,
  reason,
  needs,
}: {
  what: string
  reason: string
  needs: readonly Named[]
}) {
  const { goToField } = usePlace()
  if (needs.length === 0)
    return (
      <p className="quiet">
        {what}: {reason}.
      </p>
    )
  return (
    <p className="quiet">
      {what} once {needs.length === 1 ? 'this is' : 'these are'} given:{' '}
      {needs.map(({ field, label }, place) => (
        <span key={field}>
          {place > 0 ? ', ' : ''}
          <button type="button" className="link" onClick={() => goToField(field)}>
            {inSentence(label)}
          </button>
        </span>
      ))}
      .
    </p>
  )
}
