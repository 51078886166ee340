import { Button, Result } from 'antd'
import type { ReactNode } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { useSessionPart } from '../model/useSession'

/** One part of the bench: what breaks in it leaves the rest at work, and the next edit tries it again. */
export function Guard({ what, children }: { what: string; children: ReactNode }) {
  const answer = useSessionPart((state) => state.answer)
  return (
    <ErrorBoundary
      resetKeys={[answer]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <p className="fault" role="alert">
          {what} could not be drawn: {reasonOf(error)}. The document is as it was; edits and saving
          work.{' '}
          <button type="button" className="link" onClick={resetErrorBoundary}>
            Try again
          </button>
        </p>
      )}
    >
      {children}
    </ErrorBoundary>
  )
}

/** Around everything: what breaks outside the bench says so instead of leaving a white page. */
export function LastGuard({ children }: { children: ReactNode }) {
  return (
    <ErrorBoundary
      fallbackRender={({ error }) => (
        <Result
          status="warning"
          title="The page met something it cannot draw"
          subTitle={`${reasonOf(error)}. What was saved is safe, and unsaved edits of this tab come back after a reload.`}
          extra={
            <Button type="primary" onClick={() => window.location.reload()}>
              Reload
            </Button>
          }
        />
      )}
    >
      {children}
    </ErrorBoundary>
  )
}

function reasonOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
