import { usePlace } from '../../app/place'
import { stepOf } from '../../app/steps'
import { useSessionPart } from '../session/useSession'
import { saidOf } from './labels'

/** Why something is not known, with the way to each field that would make it known. */
export function Needs({ what, reason, needs }: { what: string; reason: string; needs: readonly string[] }) {
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const { goToField } = usePlace()
  if (needs.length === 0) return <p className="quiet">{what}: {reason}.</p>
  return (
    <p className="quiet">
      {what} once {needs.length === 1 ? 'this is' : 'these are'} given:{' '}
      {needs.map((need, place) => (
        <span key={need}>
          {place > 0 ? ', ' : ''}
          <button type="button" className="link" onClick={() => { goToField(stepOf(need, index), need) }}>{saidOf(need)}</button>
        </span>
      ))}.
    </p>
  )
}
