import { Tooltip } from 'antd'
import type { Beside } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'

/** Whose curves the dotted lines are, and what the candidate in view does differently. */
export function BesideNote({ beside }: { beside: Beside }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const words = beside.comparison.words.map((w) => w[system])
  return (
    <span className="beside-note">
      <Tooltip
        title={
          words.length > 0 ? (
            <ul className="tip-list">
              {words.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          ) : (
            'Nothing that is computed differs.'
          )
        }
        trigger={['hover', 'focus']}
      >
        <span className="term" tabIndex={0}>
          dotted: {beside.name}
          {words[0] === undefined ? '' : `; this one ${words[0]}`}
        </span>
      </Tooltip>{' '}
      <button type="button" className="link quiet" onClick={() => session.layBeside(undefined)}>
        off
      </button>
    </span>
  )
}
