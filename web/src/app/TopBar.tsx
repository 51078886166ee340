import { Button, Segmented, Tooltip } from 'antd'
import { memo } from 'react'
import type { UnitSystem } from '../api/client'
import { MoreMenu } from './MoreMenu'
import { CandidateTabs } from '../features/candidates/CandidateTabs'
import { isUnsaved } from '../model/state'
import { useSession, useSessionPart } from '../model/useSession'

/** What opens over the bench. */
export type Layer = 'builds' | 'devices' | 'find' | 'help'

interface Props {
  readonly readOnly: boolean
  readonly dark: boolean
  readonly onDark: () => void
  readonly onOpen: (id: number) => void
  readonly onLayer: (layer: Layer) => void
}

/** Build, candidates, saving, undo, units. */
export const TopBar = memo(function TopBar({ readOnly, dark, onDark, onOpen, onLayer }: Props) {
  const session = useSession()
  const summary = useSessionPart((state) => state.summary)
  const name = useSessionPart((state) => state.answer?.name)
  const unsaved = useSessionPart(isUnsaved)
  const canUndo = useSessionPart((state) => state.history.past.length > 0)
  const canRedo = useSessionPart((state) => state.history.future.length > 0)
  const system = useSessionPart((state) => state.system)
  return (
    <header className="top">
      <span className="brand">
        <img src="/mark.svg" alt="" width={22} height={22} /> Upper Lobe
      </span>
      <button
        type="button"
        className="build-button"
        title={name ?? summary.name}
        aria-label={`Builds; open now: ${name ?? summary.name}`}
        onClick={() => onLayer('builds')}
      >
        {name ?? summary.name} ▾
      </button>
      <CandidateTabs />
      <span className="grow" />
      <span className="saved" role="status">
        {unsaved ? 'not saved' : `revision ${summary.revision} saved`}
      </span>
      <Button
        size="small"
        type={unsaved && !readOnly ? 'primary' : 'default'}
        disabled={!unsaved || readOnly}
        onClick={() => session.save()}
      >
        Save
      </Button>
      <Tooltip title="Ctrl+Z">
        <Button size="small" disabled={!canUndo} onClick={() => session.undo()}>
          Undo
        </Button>
      </Tooltip>
      <Tooltip title="Ctrl+Shift+Z">
        <Button size="small" disabled={!canRedo} onClick={() => session.redo()}>
          Redo
        </Button>
      </Tooltip>
      <Segmented<UnitSystem>
        size="small"
        aria-label="Units"
        value={system}
        onChange={(next) => session.useUnits(next)}
        options={[
          { value: 'inch', label: 'inch' },
          { value: 'metric', label: 'mm' },
        ]}
      />
      <MoreMenu
        dark={dark}
        readOnly={readOnly}
        onDark={onDark}
        onOpen={onOpen}
        onDevices={() => onLayer('devices')}
      />
      <Button
        size="small"
        onClick={() => onLayer('find')}
        aria-label="Find anything"
        title="/ or Ctrl+K"
      >
        Find
      </Button>
      <Button size="small" onClick={() => onLayer('help')} aria-label="Keys and words" title="?">
        ?
      </Button>
    </header>
  )
})
