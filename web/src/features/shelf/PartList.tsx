import { Input, Select } from 'antd'
import { useState } from 'react'
import type { PartKind, ShelfPart } from '../../api/client'
import { inSentence, spoken } from '../fields/labels'
import { LobeMarks } from './LobeMarks'
import { chosenOf, FILTERS, foundIn, valuesOf } from './filters'
import { useDrawnLobes, useParts } from './useShelf'

/** The parts of one kind: found by words, cams also by what they are ground for and run in. */
export function PartList({
  kind,
  onChoose,
}: {
  kind: PartKind
  onChoose: (part: ShelfPart) => void
}) {
  const parts = useParts()
  const [search, setSearch] = useState('')
  const [wanted, setWanted] = useState<Readonly<Record<string, string>>>({})
  const drawn = useDrawnLobes(kind)
  const ofKind = (parts.data ?? []).filter(({ part }) => part.kind === kind)
  const found = foundIn(chosenOf(ofKind, wanted), search)
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
      <div className="part-filters">
        {FILTERS.filter(({ kinds }) => kinds.includes(kind)).map(({ key, label }) => (
          <Select
            key={key}
            size="small"
            allowClear
            aria-label={label}
            placeholder={label}
            value={wanted[key] === '' ? undefined : wanted[key]}
            onChange={(value: string | undefined) => setWanted({ ...wanted, [key]: value ?? '' })}
            options={valuesOf(ofKind, key).map((value) => ({ value, label: spoken(value) }))}
          />
        ))}
      </div>
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
              <span className="part-name">
                <LobeMarks lobes={drawn.get(entry.part.name)} />
                {entry.part.name}
              </span>
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
