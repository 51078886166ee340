import { Input } from 'antd'
import type { ReactNode } from 'react'
import { useEffect, useId, useRef, useState } from 'react'

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

/**
 * A text as typed. Enter or leaving the field commits it, Escape takes it back; a refused text stays
 * on screen beside its fault, so that nothing typed is lost.
 */
export function TextField({ label, value, onCommit, suffix, fault, help, className, ariaLabel }: Props) {
  const id = useId()
  const [draft, setDraft] = useState<string>()
  const committed = useRef<string>(undefined)
  useEffect(() => {
    // The server's text replaces what was typed once it was taken.
    setDraft(undefined)
    committed.current = undefined
  }, [value])
  const commit = () => {
    if (draft === undefined || draft === value || draft === committed.current) return
    committed.current = draft
    onCommit(draft)
  }
  return (
    <div className={`field ${className ?? ''}`} title={help}>
      <label htmlFor={id}>{label}</label>
      <Input
        id={id}
        aria-label={ariaLabel}
        aria-describedby={fault === undefined ? undefined : `${id}-fault`}
        aria-invalid={fault !== undefined}
        status={fault === undefined ? '' : 'error'}
        value={draft ?? value}
        autoComplete="off"
        spellCheck={false}
        suffix={suffix}
        onChange={(event) => { setDraft(event.target.value) }}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit()
          if (event.key === 'Escape') {
            setDraft(undefined)
            committed.current = undefined
          }
        }}
      />
      {fault === undefined ? null : <div className="fault" id={`${id}-fault`} role="alert">{fault}</div>}
    </div>
  )
}
