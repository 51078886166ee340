import { Alert, Button } from 'antd'
import { rememberBuild } from './address'
import { useSession, useSessionPart } from '../features/session/useSession'

/** What belongs to no field: a silent server, a stale save, cautions of the build. */
export function Banner() {
  const session = useSession()
  const trouble = useSessionPart((state) => state.trouble)
  const staleAgainst = useSessionPart((state) => state.staleAgainst)
  const summary = useSessionPart((state) => state.summary)
  const warnings = useSessionPart((state) => state.answer?.analysis.warnings)
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
          action={<Button size="small" onClick={() => { void session.saveAsNew().then(rememberBuild) }}>Keep mine as a new build</Button>}
        />
      )}
      {warnings?.map((warning) => <Alert key={warning} type="info" showIcon title={warning} />)}
    </>
  )
}
