import { Button, Segmented, Select, Tooltip } from 'antd'
import { memo } from 'react'
import type { BuildSummary, UnitSystem } from '../api/client'
import { useSession, useSessionPart } from '../features/session/useSession'
import { FileButtons } from '../features/builds/FileButtons'

interface Props {
  readonly builds: readonly BuildSummary[]
  readonly onOpen: (id: number) => void
  readonly dark: boolean
  readonly onDark: (dark: boolean) => void
}

/** Build, candidates, saving, undo, units. */
export const TopBar = memo(function TopBar({ builds, onOpen, dark, onDark }: Props) {
  const session = useSession()
  const summary = useSessionPart((state) => state.summary)
  const unsaved = useSessionPart((state) => state.history.present !== state.savedDocument)
  const canUndo = useSessionPart((state) => state.history.past.length > 0)
  const canRedo = useSessionPart((state) => state.history.future.length > 0)
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const chosen = useSessionPart((state) => state.answer?.candidate_index)
  const system = useSessionPart((state) => state.system)
  const options = builds.map((b) => ({ value: b.id, label: b.name }))
  if (!options.some((o) => o.value === summary.id)) options.unshift({ value: summary.id, label: summary.name })
  return (
    <header className="top">
      <span className="brand"><img src="/mark.svg" alt="" width={22} height={22} /> Upper Lobe</span>
      <Select
        aria-label="Build"
        className="build-select"
        value={summary.id}
        onChange={onOpen}
        options={options}
        popupMatchSelectWidth={false}
      />
      <nav className="candidates" aria-label="Candidates">
        {candidates?.map((candidate, index) => (
          <button
            type="button"
            key={candidate.id}
            className={index === chosen ? 'chosen' : ''}
            aria-current={index === chosen}
            title={candidate.name}
            onClick={() => { session.choose(candidate.id) }}
          >
            {candidate.name}
          </button>
        ))}
      </nav>
      <span className="grow" />
      <span className="saved" role="status">{unsaved ? 'not saved' : `revision ${summary.revision} saved`}</span>
      <Button size="small" type={unsaved ? 'primary' : 'default'} disabled={!unsaved} onClick={() => { session.save() }}>Save</Button>
      <Tooltip title="Ctrl+Z"><Button size="small" disabled={!canUndo} onClick={() => { session.undo() }}>Undo</Button></Tooltip>
      <Tooltip title="Ctrl+Shift+Z"><Button size="small" disabled={!canRedo} onClick={() => { session.redo() }}>Redo</Button></Tooltip>
      <FileButtons onOpen={onOpen} />
      <Segmented<UnitSystem>
        size="small"
        aria-label="Units"
        value={system}
        onChange={(next) => { session.useUnits(next) }}
        options={[{ value: 'inch', label: 'inch' }, { value: 'metric', label: 'mm' }]}
      />
      <Button size="small" aria-pressed={dark} onClick={() => { onDark(!dark) }}>{dark ? 'Light' : 'Dark'}</Button>
    </header>
  )
})
