import { useState } from 'react'
import { useSession, useSessionPart } from '../../model/useSession'
import { freeId } from './ids'

export interface Asked {
  readonly title: string
  readonly name: string
  readonly action: 'duplicate' | 'rename' | 'add'
}

/** What can be done with the candidate in view and the list it stands in. */
export function useCandidateActions() {
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const beside = useSessionPart((state) => state.beside)
  const [asked, setAsked] = useState<Asked>()
  const viewed = candidates[index]
  const others = candidates.filter((_, place) => place !== index)
  const items = [
    { key: 'duplicate', label: 'Duplicate this candidate', disabled: !viewed },
    { key: 'add', label: 'Add an empty candidate' },
    { key: 'rename', label: 'Rename', disabled: !viewed },
    { key: 'left', label: 'Move left', disabled: index === 0 },
    { key: 'right', label: 'Move right', disabled: index >= candidates.length - 1 },
    ...others.map((other) => ({
      key: `beside:${other.id}`,
      label: other.id === beside ? `Take ${other.name} off the strip` : `Lay ${other.name} beside`,
    })),
    { key: 'remove', label: 'Remove (undo brings it back)', disabled: !viewed, danger: true },
  ]
  const run = (key: string) => {
    if (key === 'duplicate' && viewed)
      setAsked({ title: 'Name of the copy', name: `${viewed.name}, again`, action: 'duplicate' })
    if (key === 'add')
      setAsked({
        title: 'Name of the new candidate',
        name: `Candidate ${candidates.length + 1}`,
        action: 'add',
      })
    if (key === 'rename' && viewed)
      setAsked({ title: 'Name of this candidate', name: viewed.name, action: 'rename' })
    if (key === 'left' && viewed)
      session.edit({ place_candidate: { candidate: viewed.id, place: index - 1 } })
    if (key === 'right' && viewed)
      session.edit({ place_candidate: { candidate: viewed.id, place: index + 1 } })
    if (key === 'remove' && viewed) session.edit({ remove_candidate: { candidate: viewed.id } })
    if (key.startsWith('beside:')) {
      const id = key.slice('beside:'.length)
      session.layBeside(id === beside ? undefined : id)
    }
  }
  const named = (name: string) => {
    const to = freeId(candidates.map((c) => c.id))
    if (asked?.action === 'duplicate' && viewed)
      session.edits([{ duplicate: { candidate: viewed.id, to, name } }], to)
    if (asked?.action === 'add') session.edits([{ add_candidate: { to, name } }], to)
    if (asked?.action === 'rename')
      session.edit({ set: { field: `candidates[${index}].name`, text: name } })
    setAsked(undefined)
  }
  return {
    items,
    run,
    asked,
    named,
    cancel: () => {
      setAsked(undefined)
    },
  }
}
