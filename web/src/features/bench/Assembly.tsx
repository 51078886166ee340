import { Button, Input } from 'antd'
import { useEffect, useState } from 'react'
import type { AssemblyLine, Edit } from '../../api/client'
import { keep, kept } from '../../model/keep'
import { useCandidate, useSession } from '../../model/useSession'
import './assembly.css'
import { doneOf, now, phasesOf, WORDS } from './lines'

const HAND = 'upper-lobe.hand'

/** Putting it together: every line in its order, what it waits for, signed with name and time, undone with a reason. */
export function Assembly() {
  const session = useSession()
  const candidate = useCandidate()
  const [by, setBy] = useState(() => kept(HAND) ?? '')
  const report = candidate?.assembly
  useEffect(() => {
    session.wantAssembly(true)
    return () => session.wantAssembly(false)
  }, [session])
  if (!candidate || !report) return <p className="quiet">Laying out the work…</p>
  const name = (to: string) => {
    setBy(to)
    keep(HAND, to)
  }
  const edit = (made: Edit) => session.edit(made)
  return (
    <section className="assembly" aria-label="Assembly">
      <div className="assembly-hand no-print">
        <label>
          Signed by{' '}
          <Input
            value={by}
            autoComplete="off"
            placeholder="your name"
            onChange={(event) => name(event.target.value)}
          />
        </label>
        <span role="status">{doneOf(report)}</span>
        <Button size="small" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <ul className="quiet">
        {report.cautions.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      {phasesOf(report.lines).map(({ phase, lines }) => (
        <section key={phase} aria-label={phase}>
          <h2>{phase}</h2>
          <ol>
            {lines.map((line) => (
              <Line key={line.id} line={line} by={by} candidate={candidate.id} onEdit={edit} />
            ))}
          </ol>
        </section>
      ))}
    </section>
  )
}

interface LineProps {
  readonly line: AssemblyLine
  readonly by: string
  readonly candidate: string
  readonly onEdit: (edit: Edit) => void
}

function Line({ line, by, candidate, onEdit }: LineProps) {
  const isSigned = line.by !== null && line.by !== undefined
  const sign = () => onEdit({ sign_line: { line: line.id, candidate, by, at: now(new Date()) } })
  return (
    <li className={`assembly-line ${line.state}`}>
      <div>
        <b>{line.what}</b> <span className={`word ${WORDS[line.state].tone}`}>{said(line)}</span>
        <div className="quiet">
          {line.how}
          {line.found ? `; ${line.found}` : ''}
          {line.waits_for.length > 0 ? `; waits for: ${line.waits_for.join(', ')}` : ''}
          {line.undone ? `; undone: ${line.undone}` : ''}
        </div>
      </div>
      {isSigned ? (
        <Undo line={line} by={by} candidate={candidate} onEdit={onEdit} />
      ) : (
        <Button
          className="no-print"
          disabled={line.state === 'waits' || by.trim() === ''}
          aria-label={`Sign ${line.what}`}
          onClick={sign}
        >
          Sign
        </Button>
      )}
    </li>
  )
}

/** Its state with who signed it. Pure. */
function said({ state, by, at }: AssemblyLine): string {
  return [WORDS[state].text, by, at].filter(Boolean).join(', ')
}

/** Taking a signature back, with the reason that whoever comes after has to know. */
function Undo({ line, by, candidate, onEdit }: LineProps) {
  const [reason, setReason] = useState<string>()
  if (reason === undefined)
    return (
      <Button
        className="no-print"
        size="small"
        aria-label={`Undo ${line.what}`}
        onClick={() => setReason('')}
      >
        Undo
      </Button>
    )
  const undo = () => {
    onEdit({ undo_line: { line: line.id, candidate, by, at: now(new Date()), reason } })
    setReason(undefined)
  }
  return (
    <form
      className="assembly-undo no-print"
      onSubmit={(event) => {
        event.preventDefault()
        if (reason.trim() !== '') undo()
      }}
    >
      <Input
        autoFocus
        value={reason}
        aria-label={`Why ${line.what} is undone`}
        placeholder="why"
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setReason(undefined)
        }}
      />
      <Button htmlType="submit" disabled={reason.trim() === ''}>
        Undo it
      </Button>
    </form>
  )
}
