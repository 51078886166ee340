import { Button, Dropdown } from 'antd'
import { useSession, useSessionPart } from '../../model/useSession'
import { NameDialog } from './NameDialog'
import { useCandidateActions } from './useCandidateActions'
import './candidates.css'

/** Every candidate as a tab; its own menu copies, renames, moves, lays beside and takes away. */
export function CandidateTabs() {
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const chosen = useSessionPart((state) => state.answer?.candidate_index)
  const beside = useSessionPart((state) => state.beside)
  const actions = useCandidateActions()
  if (!candidates) return null
  return (
    <>
      <nav className="candidates" aria-label="Candidates">
        {candidates.map((candidate, index) => (
          <button
            type="button"
            key={candidate.id}
            className={`${index === chosen ? 'chosen' : ''} ${candidate.id === beside ? 'beside' : ''}`}
            aria-current={index === chosen}
            title={candidate.id === beside ? `${candidate.name}, laid beside` : candidate.name}
            onClick={() => session.choose(candidate.id)}
          >
            {candidate.name}
          </button>
        ))}
      </nav>
      <Dropdown
        trigger={['click']}
        menu={{
          items: actions.items,
          onClick: ({ key }) => {
            actions.run(key)
          },
        }}
      >
        <Button
          size="small"
          aria-label="Candidate: duplicate, rename, move, lay beside, remove"
          title="Duplicate, rename, move, lay beside, remove"
        >
          + ▾
        </Button>
      </Dropdown>
      <NameDialog asked={actions.asked} onDone={actions.named} onCancel={actions.cancel} />
    </>
  )
}
