import { Button, Drawer } from 'antd'
import { useState } from 'react'
import type { PartKind, ShelfPart } from '../../api/client'
import { Choices } from './Choices'
import { KeepPart } from './KeepPart'
import { KINDS } from './kinds'
import { PartFit } from './PartFit'
import { PartList } from './PartList'
import './shelf.css'
import { SheetTools } from './SheetTools'

interface Props {
  readonly kind: PartKind | undefined
  readonly readOnly: boolean
  readonly onKind: (kind: PartKind) => void
  readonly onClose: () => void
}

/** The parts shelf: what there is of one kind, whether it fits the candidate in view, what it drags along. */
export function Shelf({ kind, readOnly, onKind, onClose }: Props) {
  const [chosen, setChosen] = useState<ShelfPart>()
  const own = chosen?.part.kind === kind ? chosen : undefined
  return (
    <Drawer
      open={kind !== undefined}
      onClose={onClose}
      placement="right"
      size={640}
      title={own ? own.part.name : 'Parts shelf'}
    >
      {kind === undefined ? null : own ? (
        <PartFit
          key={own.part.name}
          entry={own}
          readOnly={readOnly}
          onBack={() => setChosen(undefined)}
          onUsed={() => {
            setChosen(undefined)
            onClose()
          }}
        />
      ) : (
        <div className="shelf">
          <Choices
            label="Kinds of parts"
            options={KINDS.map((each) => ({ value: each.kind, label: each.many }))}
            value={kind}
            onChange={onKind}
          />
          <PartList key={kind} kind={kind} onChoose={setChosen} />
          {readOnly ? null : <KeepPart key={`keep ${kind}`} kind={kind} />}
          <SheetTools readOnly={readOnly} />
        </div>
      )}
    </Drawer>
  )
}

/** Opens the shelf at a kind. */
export function ShelfButton({
  kind,
  label,
  onOpen,
}: {
  kind: PartKind
  label: string
  onOpen: (kind: PartKind) => void
}) {
  return (
    <Button size="small" onClick={() => onOpen(kind)}>
      {label}
    </Button>
  )
}
