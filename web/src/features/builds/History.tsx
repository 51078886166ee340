import { Button } from 'antd'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { BuildSummary } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSession } from '../../model/useSession'
import { useBuildWork } from './useBuilds'

/** Every saved revision of a build: what changed since, and the way back to it. */
export function History({
  build,
  onBack,
  onOpen,
}: {
  build: BuildSummary
  onBack: () => void
  onOpen: (id: number) => void
}) {
  const path = { id: build.id }
  const revisions = useQuery({
    queryKey: ['revisions', build.id],
    queryFn: () => answered(client.GET('/api/builds/{id}/revisions', { params: { path } })),
    staleTime: 0,
  })
  const [shown, setShown] = useState<number>()
  return (
    <div className="builds">
      <Button size="small" onClick={onBack}>
        Back to all builds
      </Button>
      {revisions.error ? (
        <p className="fault" role="alert">
          {revisions.error.message}
        </p>
      ) : null}
      <ul>
        {revisions.data?.map((revision) => (
          <li key={revision.revision}>
            <span>
              Revision {revision.revision}{' '}
              <span className="quiet">
                {new Date(revision.saved_at).toLocaleString()}, {revision.name}
              </span>
            </span>
            <Button
              size="small"
              type="text"
              aria-expanded={shown === revision.revision}
              onClick={() => setShown(shown === revision.revision ? undefined : revision.revision)}
            >
              What it has and what changed since
            </Button>
            {shown === revision.revision ? (
              <Revision build={build} number={revision.revision} onOpen={onOpen} />
            ) : null}
          </li>
        ))}
      </ul>
    </div>
  )
}

function Revision({
  build,
  number,
  onOpen,
}: {
  build: BuildSummary
  number: number
  onOpen: (id: number) => void
}) {
  const session = useSession()
  const { keep } = useBuildWork(onOpen)
  const own = session.read()
  const isOpen = own.summary.id === build.id
  const open = (revision: number) =>
    answered(
      client.GET('/api/builds/{id}/revisions/{number}', {
        params: { path: { id: build.id, number: revision } },
      }),
    )
  const told = useQuery({
    queryKey: ['since', build.id, number, isOpen ? own.history.present : build.revision],
    queryFn: async () => {
      const before = (await open(number)).document
      const after = isOpen ? own.history.present : (await open(build.revision)).document
      return {
        before,
        differences: await answered(client.POST('/api/differences', { body: { before, after } })),
      }
    },
  })
  if (told.error)
    return (
      <p className="fault" role="alert">
        {told.error.message}
      </p>
    )
  if (!told.data) return <p className="quiet">Comparing…</p>
  const { before, differences } = told.data
  return (
    <div className="since">
      {differences.length === 0 ? (
        <p className="quiet">Nothing changed since.</p>
      ) : (
        <ul>
          {differences.slice(0, 60).map((d) => (
            <li key={d.field}>
              {d.label}: <s>{d.before || 'not given'}</s> → {d.after || 'not given'}
            </li>
          ))}
        </ul>
      )}
      {isOpen && differences.length > 0 ? (
        <Button size="small" onClick={() => session.replace(before)}>
          Take this revision up again
        </Button>
      ) : null}{' '}
      <Button size="small" onClick={() => void keep(before)}>
        Open as a new build
      </Button>
    </div>
  )
}
