import { useState } from 'react'
import type { LimitReport } from '../../api/client'
import { TextField } from '../fields/TextField'
import { useSession, useSessionPart } from '../../model/useSession'

/** A shop's own figure in place of the default one, with the reason it must give. */
export function OwnLimit({ limit }: { limit: LimitReport }) {
  const session = useSession()
  const rows =
    useSessionPart(
      (state) => state.answer?.fields?.find((f) => f.field === 'limits')?.table?.rows,
    ) ?? []
  const place = rows.findIndex(
    (row) => row[0] === limit.id && (row[1] ?? '') === (limit.side ?? ''),
  )
  const [asked, setAsked] = useState(false)
  const [figures, setFigures] = useState({ least: '', most: '', reason: '' })
  if (place >= 0) {
    const without = rows.filter((_, at) => at !== place)
    return (
      <button
        type="button"
        className="link quiet"
        onClick={() => session.edit({ rows: { field: 'limits', rows: without } })}
      >
        back to the default figure
      </button>
    )
  }
  if (!asked)
    return (
      <button type="button" className="link quiet" onClick={() => setAsked(true)}>
        set this shop's own figure
      </button>
    )
  const set = () => {
    const row = [limit.id, limit.side ?? '', figures.least, figures.most, figures.reason]
    session.edit({ rows: { field: 'limits', rows: [...rows, row] } })
  }
  return (
    <div className="own-limit">
      {limit.sense === 'at_most' ? null : (
        <TextField
          label="At least, with its unit"
          value={figures.least}
          onCommit={(least) => setFigures({ ...figures, least })}
        />
      )}
      {limit.sense === 'at_least' ? null : (
        <TextField
          label="At most, with its unit"
          value={figures.most}
          onCommit={(most) => setFigures({ ...figures, most })}
        />
      )}
      <TextField
        label="Reason"
        value={figures.reason}
        onCommit={(reason) => setFigures({ ...figures, reason })}
      />
      <button
        type="button"
        className="link"
        disabled={figures.reason === '' || (figures.least === '' && figures.most === '')}
        onClick={set}
      >
        hold to it
      </button>
    </div>
  )
}
