import { Button, Drawer, Input } from 'antd'
import { useState } from 'react'
import type { PartKind, ShelfPart } from '../../api/client'
import { Choices } from './Choices'
import { KeepPart } from './KeepPart'
import { KINDS } from './kinds'
import { PartFit } from './PartFit'
import './shelf.css'
import { SheetTools } from './SheetTools'
import { useParts } from './useShelf'
import { inSentence } from '../fields/labels'

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

function PartList({ kind, onChoose }: { kind: PartKind; onChoose: (part: ShelfPart) => void }) {
  const parts = useParts()
  const [search, setSearch] = useState('')
  const words = search.toLowerCase().split(/\s+/)
  const ofKind = (parts.data ?? []).filter(({ part }) => part.kind === kind)
  const found = ofKind.filter(({ part, figures }) => {
    const text = [part.name, part.notes ?? '', ...figures.map((figure) => figure.text)]
      .join(' ')
      .toLowerCase()
    return words.every((word) => text.includes(word))
  })
  if (parts.error)
    return (
      <p className="fault" role="alert">
        {parts.error.message}
      </p>
    )
  return (
    <>
      <Input
        allowClear
        placeholder="Find by name or figure"
        aria-label="Find a part"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      {parts.data && found.length === 0 ? (
        <p className="quiet">
          {ofKind.length === 0
            ? 'None of these on the shelf: import a sheet, or keep what this candidate has.'
            : `Nothing like “${search}”.`}
        </p>
      ) : null}
      <ul className="shelf-list">
        {found.slice(0, 100).map((entry) => (
          <li key={entry.part.name}>
            <button type="button" onClick={() => onChoose(entry)}>
              <span className="part-name">{entry.part.name}</span>
              <span className="part-price">
                {[entry.part.price, entry.part.lead_time].filter(Boolean).join(', ')}
              </span>
              <span className="quiet part-figures">
                {entry.figures
                  .filter((figure) => figure.telling)
                  .map((figure) => `${inSentence(figure.label)} ${figure.text}`)
                  .join(', ')}
              </span>
              {entry.part.notes || entry.part.copy_of ? (
                <span className="quiet part-figures">
                  {[entry.part.copy_of ? `made from ${entry.part.copy_of}` : '', entry.part.notes]
                    .filter(Boolean)
                    .join('. ')}
                </span>
              ) : null}
            </button>
          </li>
        ))}
      </ul>
      {found.length > 100 ? (
        <p className="quiet">{found.length - 100} more: type a part of the name.</p>
      ) : null}
    </>
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
