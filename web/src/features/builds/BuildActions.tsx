import { App, Button, Input } from 'antd'
import { useState } from 'react'
import type { BuildSummary } from '../../api/client'
import { useBuildWork } from './useBuilds'

interface Props {
  readonly build: BuildSummary
  readonly archived: boolean
  readonly readOnly: boolean
  readonly onHistory: (build: BuildSummary) => void
  readonly onOpen: (id: number) => void
}

/** What can be done with one build of the list. Nothing is deleted without its name typed again. */
export function BuildActions({ build, archived, readOnly, onHistory, onOpen }: Props) {
  const { copy, archive, restore, trouble } = useBuildWork(onOpen)
  const [deleting, setDeleting] = useState(false)
  const { message } = App.useApp()
  return (
    <div className="build-actions">
      <Button size="small" type="text" onClick={() => onHistory(build)}>
        History
      </Button>
      {readOnly ? null : archived ? (
        <>
          <Button
            size="small"
            type="text"
            onClick={() => {
              void restore(build.id).then((done) => {
                if (done) void message.success(`${build.name} is back in use`)
              })
            }}
          >
            Restore
          </Button>
          <Button size="small" type="text" danger onClick={() => setDeleting(true)}>
            Delete for good
          </Button>
        </>
      ) : (
        <>
          <Button size="small" type="text" onClick={() => void copy(build.id)}>
            Duplicate
          </Button>
          <Button
            size="small"
            type="text"
            onClick={() => {
              void archive(build.id).then((done) => {
                if (done) void message.info(`${build.name} is archived; the archive keeps it whole`)
              })
            }}
          >
            Archive
          </Button>
        </>
      )}
      {deleting ? <Deletion build={build} onDone={() => setDeleting(false)} /> : null}
      {trouble === undefined ? null : (
        <p className="fault" role="alert">
          {trouble}
        </p>
      )}
    </div>
  )
}

function Deletion({ build, onDone }: { build: BuildSummary; onDone: () => void }) {
  const [typed, setTyped] = useState('')
  const { remove, trouble } = useBuildWork(() => undefined)
  return (
    <div className="deletion">
      <p>This deletes all {build.revision} revisions for good. Type the build's name to confirm.</p>
      <Input
        aria-label="Name of the build to delete"
        autoFocus
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        placeholder={build.name}
      />
      <Button
        danger
        disabled={typed !== build.name}
        onClick={() => {
          void remove(build.id, typed).then((done) => {
            if (done) onDone()
          })
        }}
      >
        Delete
      </Button>{' '}
      <Button onClick={onDone}>Keep it</Button>
      {trouble === undefined ? null : (
        <p className="fault" role="alert">
          {trouble}
        </p>
      )}
    </div>
  )
}
