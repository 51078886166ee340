import { Button, Drawer, Input, Segmented } from 'antd'
import { useState } from 'react'
import type { BuildSummary } from '../../api/client'
import { BuildActions } from './BuildActions'
import { History } from './History'
import { aboutOf, lastChange, searched } from './listed'
import { useBuildList } from './useBuilds'
import { WholeArchive } from './WholeArchive'
import './builds.css'

interface Props {
  readonly open: boolean
  readonly current: number | undefined
  readonly readOnly: boolean
  readonly onClose: () => void
  readonly onOpen: (id: number) => void
  readonly onBegin: () => void
}

/** Every build: open, begin, copy, look back, put away, bring back. */
export function BuildsDrawer({ open, current, readOnly, onClose, onOpen, onBegin }: Props) {
  const [archived, setArchived] = useState(false)
  const [search, setSearch] = useState('')
  const [history, setHistory] = useState<BuildSummary>()
  const builds = useBuildList(archived)
  const found = searched(builds.data ?? [], search)
  const go = (id: number) => {
    onOpen(id)
    onClose()
  }
  return (
    <Drawer
      open={open}
      onClose={onClose}
      placement="left"
      size={460}
      title={history ? `Revisions of ${history.name}` : 'Builds'}
    >
      {history ? (
        <History build={history} onBack={() => setHistory(undefined)} onOpen={go} />
      ) : (
        <div className="builds">
          {readOnly ? null : (
            <Button
              type="primary"
              onClick={() => {
                onClose()
                onBegin()
              }}
            >
              Begin a build
            </Button>
          )}
          <div className="builds-tools">
            <Input
              allowClear
              placeholder="Find by name, use, bore, stroke"
              aria-label="Find a build"
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
            <Segmented
              aria-label="Which builds"
              value={archived ? 'archive' : 'in use'}
              options={['in use', 'archive']}
              onChange={(value) => setArchived(value === 'archive')}
            />
          </div>
          {builds.error ? (
            <p className="fault" role="alert">
              {builds.error.message}
            </p>
          ) : null}
          {found.length === 0 && builds.data ? (
            <p className="quiet">
              {search === ''
                ? archived
                  ? 'Nothing is archived.'
                  : 'No builds yet: begin one above, or import a file.'
                : `No build is like “${search}”.`}
            </p>
          ) : null}
          <ul>
            {found.slice(0, 200).map((build) => (
              <li key={build.id} className={build.id === current ? 'chosen' : ''}>
                <button type="button" className="build-name" onClick={() => go(build.id)}>
                  {build.name}
                </button>
                <span className="quiet">
                  {[aboutOf(build), `revision ${build.revision}`, lastChange(build)]
                    .filter((part) => part !== '')
                    .join(', ')}
                </span>
                <BuildActions
                  build={build}
                  archived={archived}
                  readOnly={readOnly}
                  onHistory={setHistory}
                  onOpen={go}
                />
              </li>
            ))}
          </ul>
          {found.length > 200 ? (
            <p className="quiet">{found.length - 200} more: type a part of the name.</p>
          ) : null}
          <WholeArchive readOnly={readOnly} />
        </div>
      )}
    </Drawer>
  )
}
