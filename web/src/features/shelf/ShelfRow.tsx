import type { PartKind } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { KINDS, partField } from './kinds'
import { ShelfButton } from './Shelf'

/** The way from a step to the parts it is about, with what the candidate has of them. */
export function ShelfRow({ kinds }: { kinds: readonly PartKind[] }) {
  const { openShelf } = usePlace()
  if (kinds.length === 0) return null
  return (
    <div className="shelf-row">
      {kinds.map((kind) => (
        <KindButton key={kind} kind={kind} onOpen={openShelf} />
      ))}
    </div>
  )
}

function KindButton({ kind, onOpen }: { kind: PartKind; onOpen: (kind: PartKind) => void }) {
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const has =
    useSessionPart(
      (state) =>
        state.answer?.fields?.find((field) => field.field === partField(kind, index))?.text,
    ) ?? ''
  const many = KINDS.find((each) => each.kind === kind)?.many ?? kind
  return (
    <>
      <ShelfButton kind={kind} label={`From the shelf: ${many}`} onOpen={onOpen} />
      {has === '' ? null : <span className="quiet">{has}</span>}
    </>
  )
}
