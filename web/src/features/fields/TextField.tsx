import type { ReactNode } from 'react'
import { useId, useState } from 'react'

interface Props {
  readonly label: ReactNode
  readonly value: string
  readonly onCommit: (text: string) => void
  readonly suffix?: ReactNode
  readonly fault?: string | undefined
  readonly help?: string
  readonly className?: string
  readonly ariaLabel?: string
}

interface Typed {
  /** The value that was on screen when it was typed. */
  readonly over: string
  readonly text: string
  /** Whether the server was asked to take it. */
  readonly asked: boolean
}

/**
 * A text as typed. Enter or leaving the field commits it, Escape takes it back; a refused text stays
 * on screen beside its fault, so that nothing typed is lost.
 */
export function TextField({ label, value, onCommit, suffix, fault, help, className, ariaLabel }: Props) {
  const id = useId()
  const [typed, setTyped] = useState<Typed>()
  // A new value from the server takes the place of what was typed before it.
  const draft = typed?.over === value ? typed.text : undefined
  const commit = () => {
    if (typed === undefined || draft === undefined || draft === value || typed.asked) return
    setTyped({ ...typed, asked: true })
    onCommit(draft)
  }
  return (
    <div className={`field ${className ?? ''}`} title={help}>
      <label htmlFor={id}>{label}</label>
      {/* A plain input: a form has a hundred of them, and four change with every step of a drag. */}
      <span className="text-input">
        <input
          id={id}
          type="text"
          aria-label={ariaLabel}
          aria-describedby={fault === undefined ? (help === undefined ? undefined : `${id}-help`) : `${id}-fault`}
          aria-invalid={fault !== undefined}
          value={draft ?? value}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => { setTyped({ over: value, text: event.target.value, asked: false }) }}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit()
            if (event.key === 'Escape') setTyped(undefined)
          }}
        />
        {suffix}
      </span>
      {help === undefined ? null : <div className="help" id={`${id}-help`}>{help}</div>}
      {fault === undefined ? null : <div className="fault" id={`${id}-fault`} role="alert">{fault}</div>}
    </div>
  )
}
