import { Alert, Button } from 'antd'
import { useServerState } from '../features/builds/useBuilds'
import { useSession, useSessionPart } from '../model/useSession'

/** What belongs to no field: a silent server, a store that cannot be written, edits taken up again, cautions of the build. */
export function Banner({ onOpen }: { onOpen: (id: number) => void }) {
  const session = useSession()
  const trouble = useSessionPart((state) => state.trouble)
  const gone = useSessionPart((state) => state.gone)
  const draftKept = useSessionPart((state) => state.draftKept)
  const recovered = useSessionPart((state) => state.recovered)
  const warnings = useSessionPart((state) => state.answer?.analysis.warnings)
  const server = useServerState().data
  const readOnly = server?.read_only === true
  return (
    <>
      {trouble === undefined ? null : (
        <Alert
          type="warning"
          showIcon
          title={trouble}
          action={
            <Button size="small" onClick={() => session.settle()}>
              Try again
            </Button>
          }
        />
      )}
      {gone ? (
        <Alert
          type="warning"
          showIcon
          title="This build was removed from the store while it was open here. What you see can be kept as a build of its own."
          action={
            <Button
              size="small"
              onClick={() => {
                void session.saveAsNew().then((made) => {
                  if (made !== undefined) onOpen(made)
                })
              }}
            >
              Keep it as a new build
            </Button>
          }
        />
      ) : null}
      {draftKept ? null : (
        <Alert
          type="warning"
          showIcon
          title="This browser lets the page keep nothing (its storage is forbidden or full): edits that are not saved will not survive a reload. Save often."
        />
      )}
      {server && server.troubles.length > 0 ? (
        <Alert
          type="error"
          showIcon
          title={
            <>
              {server.troubles.map((each) => (
                <div key={each}>{each}</div>
              ))}
            </>
          }
        />
      ) : null}
      {readOnly ? (
        <Alert
          type="warning"
          showIcon
          title="This database may only be read: try things out, export what you want to keep; nothing can be saved here."
        />
      ) : null}
      {recovered ? (
        <Alert
          type="info"
          showIcon
          title="Edits of this tab that were not saved are here again."
          closable={{
            'aria-label': 'Close this note',
            onClose: () => {
              session.acknowledge()
            },
          }}
          action={
            <Button size="small" onClick={() => session.undo()}>
              Back to what was saved
            </Button>
          }
        />
      ) : null}
      {warnings && warnings.length > 0 ? (
        <Alert
          type="info"
          showIcon
          title={
            <>
              {warnings.map((warning) => (
                <div key={warning}>{warning}</div>
              ))}
            </>
          }
        />
      ) : null}
    </>
  )
}
