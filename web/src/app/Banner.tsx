import { Alert, Button } from 'antd'
import { faultText } from '../features/fields/faults'
import { useSession, useSessionState } from '../features/session/useSession'

/** Troubles that belong to no field: a silent server, a stale save, a refused drag. */
export function Banner() {
  const session = useSession()
  const { trouble, staleAgainst, summary, faults, answer } = useSessionState()
  const warnings = answer?.analysis.warnings ?? []
  return (
    <>
      {trouble === undefined ? null : (
        <Alert type="warning" showIcon title={trouble} action={<Button size="small" onClick={() => { session.settle() }}>Try again</Button>} />
      )}
      {staleAgainst === undefined ? null : (
        <Alert
          type="warning"
          showIcon
          title={`This build was saved elsewhere: it is at revision ${staleAgainst}, your work began from ${summary.revision}. Nothing is lost.`}
          action={<Button size="small" onClick={() => { void session.saveAsNew() }}>Keep mine as a new build</Button>}
        />
      )}
      {faults.length === 0 ? null : (
        <Alert
          type="error"
          showIcon
          title={faults.slice(0, 3).map((fault) => `${fault.field.replace(/^candidates\[\d+\]\./, '')}: ${fault.given} ${faultText(fault)}`).join(' — ')}
          description="Nothing was changed."
        />
      )}
      {warnings.map((warning) => <Alert key={warning} type="info" showIcon title={warning} />)}
    </>
  )
}
