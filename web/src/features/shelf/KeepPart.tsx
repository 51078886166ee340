import { App, Button, Input } from 'antd'
import { useState } from 'react'
import type { PartKind, SideWord } from '../../api/client'
import { SIDES } from '../motion/useTrain'
import { useSessionPart } from '../../model/useSession'
import { isOneSided, partField } from './kinds'
import { Choices } from './Choices'
import { Faults } from './Faults'
import { useShelfWork } from './useShelf'

/** What the candidate in view has, kept on the shelf under a name of its own. */
export function KeepPart({ kind }: { kind: PartKind }) {
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const candidate = useSessionPart((state) => state.answer?.candidates[index]?.name)
  const fields = useSessionPart((state) => state.answer?.fields)
  const [side, setSide] = useState<SideWord>('intake')
  const has = fields?.find((field) => field.field === partField(kind, index, side))?.text ?? ''
  const [name, setName] = useState('')
  const { keep, refusal } = useShelfWork()
  const { message } = App.useApp()
  const put = async () => {
    const kept = await keep(kind, side, name)
    if (!kept) return
    setName('')
    void message.success(`${kept.name} is on the shelf`)
  }
  return (
    <div className="keep-part">
      <h3>Keep what {candidate ?? 'this candidate'} has</h3>
      <p className="quiet">
        {has === '' ? `Its ${kind} has no name on the shelf yet.` : `It has “${has}”.`} An edited
        part stays what it is here, under a name of its own.
      </p>
      {isOneSided(kind) ? (
        <Choices<SideWord>
          label="Of which side"
          options={SIDES.map((each) => ({ value: each, label: each }))}
          value={side}
          onChange={setSide}
        />
      ) : null}
      <form
        className="keep-form"
        onSubmit={(event) => {
          event.preventDefault()
          if (name.trim() !== '') void put()
        }}
      >
        <Input
          aria-label="Name on the shelf"
          placeholder="Name on the shelf"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
        <Button htmlType="submit" disabled={name.trim() === ''}>
          Keep
        </Button>
      </form>
      {refusal ? <Faults refusal={refusal} /> : null}
    </div>
  )
}
