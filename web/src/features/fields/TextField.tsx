import type { ReactNode } from 'react'
import { useId, useRef, useState } from 'react'
import type { Refused } from '../../model/state'
import { useFaultText } from './faults'
import { SelectingInput } from './SelectingInput'

interface Props {
  readonly label: ReactNode
  /** What the document holds. */
  readonly value: string
  /** Takes what was typed; resolves when the answer has come. */
  readonly onCommit: (text: string) => Promise<void> | void
  /** What was typed last and not taken: it stays on screen beside its fault. */
  readonly refused?: Refused | undefined
  /** Takes a refused text back. */
  readonly onForget?: () => void
  readonly suffix?: ReactNode
  readonly help?: string
  readonly className?: string
  readonly ariaLabel?: string
  readonly field?: string
}

/**
 * A text as typed. Enter or leaving the field commits it, Escape takes it back. What is typed lives until its answer has
 * come: then the field shows the document, or the refused text beside its fault.
 */
export function TextField({
  label,
  value,
  onCommit,
  refused,
  onForget,
  suffix,
  help,
  className,
  ariaLabel,
  field,
}: Props) {
  const id = useId()
  const [draft, setDraft] = useState<string>()
  const fault = useFaultText(refused, field)
  const asked = useRef<string>(undefined)
  const kept = typeof refused?.typed === 'string' ? refused.typed : undefined
  const shown = draft ?? kept ?? value
  const commit = () => {
    // Leaving the field after Enter does not ask again.
    if (draft === undefined || draft === asked.current) return
    send(draft)
  }
  const send = (text: string) => {
    // The good value typed again takes the refused one back.
    if (text === value) {
      onForget?.()
      setDraft(undefined)
      return
    }
    asked.current = text
    const over = () => {
      asked.current = undefined
      setDraft((now) => (now === text ? undefined : now))
    }
    const answer = onCommit(text)
    if (answer) void answer.then(over)
    else over()
  }
  return (
    <div className={`field ${className ?? ''}`} title={help}>
      <label htmlFor={id}>{label}</label>
      {/* A plain input: a form has a hundred of them, and four change with every step of a drag. */}
      <span className="text-input">
        <SelectingInput
          id={id}
          type="text"
          aria-label={ariaLabel}
          aria-describedby={
            fault === undefined ? (help === undefined ? undefined : `${id}-help`) : `${id}-fault`
          }
          aria-invalid={fault !== undefined}
          value={shown}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => setDraft(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              if (draft === undefined && kept !== undefined) send(kept)
              else commit()
            }
            if (event.key === 'Escape') {
              setDraft(undefined)
              onForget?.()
            }
          }}
        />
        {suffix}
      </span>
      {help === undefined ? null : (
        <div className="help" id={`${id}-help`}>
          {help}
        </div>
      )}
      {fault === undefined ? null : (
        <div className="fault" id={`${id}-fault`} role="alert">
          {fault}
        </div>
      )}
    </div>
  )
}
