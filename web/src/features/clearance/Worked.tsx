import type { ReactNode } from 'react'

interface Props {
  readonly label: string
  /** What there is so far. */
  readonly children: ReactNode
  /** Whether it is of the document as it was a moment ago. */
  readonly isOld: boolean
  /** What goes on, in words; empty when nothing does. */
  readonly doing: string
  readonly error: string | undefined
}

/** A section that the server works for: what there is, what goes on, what went wrong. */
export function Worked({ label, children, isOld, doing, error }: Props) {
  return (
    <section aria-label={label} aria-busy={doing !== ''}>
      <div className={isOld ? 'was' : undefined}>{children}</div>
      <p className="quiet" role="status">
        {doing === '' ? '' : `${doing}…`}
      </p>
      {error ? (
        <p className="fault" role="alert">
          {error}
        </p>
      ) : null}
    </section>
  )
}
