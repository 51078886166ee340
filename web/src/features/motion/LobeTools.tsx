import { Button } from 'antd'
import { useState } from 'react'
import type { LobeReport } from '../../api/client'
import { FileButton } from '../fields/FileButton'
import { download } from '../pictures/export'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { lobeCsv } from './lobeCsv'
import type { SideName } from './useTrain'
import { SIDES } from './useTrain'

/** Larger files are refused before they are read. */
const MOST_BYTES = 8 * 1024 * 1024

/** Measured lobes in, lobes out, and one flank of the candidate beside. */
export function LobeTools() {
  const session = useSession()
  const candidate = useCandidate()
  const fault = useSessionPart((state) =>
    state.faults.find((found) => /cam\.(intake|exhaust)\.(profile|checks)/.test(found.field)),
  )
  const beside = useSessionPart((state) =>
    state.answer?.candidates.find((other) => other.id === state.beside),
  )
  const [tooLarge, setTooLarge] = useState(false)
  if (!candidate) return null
  const take = async (side: SideName, file: File | undefined) => {
    if (!file) return
    setTooLarge(file.size > MOST_BYTES)
    if (file.size <= MOST_BYTES)
      session.edit({ import_lobe: { candidate: candidate.id, side, text: await file.text() } })
  }
  const lobes = candidate.lobe.state === 'done' ? candidate.lobe : undefined
  return (
    <div className="lobe-tools">
      {SIDES.map((side) => (
        <div key={side} className="lobe-row">
          <b>{side === 'intake' ? 'Intake' : 'Exhaust'}</b>
          <FileButton
            label={`Import a measured ${side} lobe`}
            fileLabel={`Import a measured ${side} lobe, file`}
            accept=".csv,.txt,text/csv,text/plain"
            onFile={(file) => void take(side, file)}
          />
          {lobes ? <Exports side={side} lobe={lobes[side]} /> : null}
          {beside && beside.id !== candidate.id ? (
            <Button
              size="small"
              title={`The opening flank of ${beside.name}; the closing one stays`}
              onClick={() => {
                session.edit({
                  take_flank: { candidate: candidate.id, from: beside.id, side, opening: true },
                })
              }}
            >
              Opening flank of {beside.name}
            </Button>
          ) : null}
        </div>
      ))}
      {tooLarge ? (
        <p className="fault" role="alert">
          That file is larger than 8 MB: a lobe takes some kilobytes.
        </p>
      ) : null}
      {fault ? (
        <p className="fault" role="alert">
          {fault.given}: needs {fault.needs}
          {fault.cure ? `; ${fault.cure}` : ''}
        </p>
      ) : null}
    </div>
  )
}

function Exports({ side, lobe }: { side: SideName; lobe: LobeReport }) {
  return (
    <>
      {[1, 0.5].map((step) => (
        <button
          key={step}
          type="button"
          className="link quiet"
          aria-label={`${side} lobe at ${String(step)} cam degree as CSV`}
          onClick={() => download(`${side}-lobe.csv`, lobeCsv(lobe, step), 'text/csv')}
        >
          CSV at {step} deg
        </button>
      ))}
    </>
  )
}
