import { ConfigProvider } from 'antd'
import { useCallback, useMemo, useState } from 'react'
import type { PartKind } from '../api/client'
import { BuildsDrawer } from '../features/builds/BuildsDrawer'
import { useServerState } from '../features/builds/useBuilds'
import { DropAnywhere } from '../features/drop/DropAnywhere'
import { MergeDialog } from '../features/merge/MergeDialog'
import { DevicesDrawer } from '../features/pairing/DevicesDrawer'
import { Palette } from '../features/palette/Palette'
import { Shelf } from '../features/shelf/Shelf'
import { useStripView } from '../features/strip/useStripView'
import type { Ways } from '../model/place'
import { PlaceContext } from '../model/place'
import { themeOf } from '../model/theme'
import { useMe } from '../model/useMe'
import { useNewest } from '../model/useNewest'
import { useSession, useSessionPart } from '../model/useSession'
import { stepNamed } from '../steps/registry'
import type { Action } from './actions'
import { actionsOf } from './actions'
import { rememberBuild } from './address'
import { KeysAndWords } from './KeysAndWords'
import type { Layer } from './TopBar'
import { TopBar } from './TopBar'
import { useCommands } from './useCommands'
import { useKeys, useLeaveWarning } from './useKeys'
import { useWays } from './useWays'
import { Workbench } from './Workbench'

const BAR_THEME = themeOf(true)

interface Props {
  readonly dark: boolean
  readonly onDark: () => void
  readonly onOpen: (id: number) => void
  /** Begins another build. */
  readonly onBegin: () => void
}

/** One opened build: bar, bench, and what opens over them. */
export function Frame({ dark, onDark, onOpen, onBegin }: Props) {
  const session = useSession()
  const current = useSessionPart((state) => state.summary.id)
  const system = useSessionPart((state) => state.system)
  const { me } = useMe()
  const readOnly = useServerState().data?.read_only === true || me?.role === 'look'
  useNewest()
  const [layer, setLayer] = useState<Layer>()
  const [shelf, setShelf] = useState<PartKind>()
  const ways = useWays(setShelf)
  const { step } = ways.place
  const strip = useStripView(step, stepNamed(step).tall)
  const actions = useMemo(
    () =>
      actionsOf(session, system, ways, {
        find: () => setLayer('find'),
        help: () => setLayer('help'),
        builds: () => setLayer('builds'),
        devices: me?.here ? () => setLayer('devices') : undefined,
        begin: onBegin,
        strip: strip.onTall,
        dark: onDark,
      }),
    [session, system, ways, onBegin, strip.onTall, onDark, me?.here],
  )
  useKeys(actions)
  useLeaveWarning(session)
  const close = useCallback(() => setLayer(undefined), [])
  return (
    <PlaceContext value={ways}>
      {/* The bar is dark in both themes. */}
      <ConfigProvider theme={BAR_THEME}>
        <TopBar
          readOnly={readOnly}
          dark={dark}
          onDark={onDark}
          onOpen={onOpen}
          onLayer={setLayer}
        />
      </ConfigProvider>
      <Workbench strip={strip} onOpen={onOpen} onBegin={onBegin} />
      <BuildsDrawer
        open={layer === 'builds'}
        current={current}
        readOnly={readOnly}
        onClose={close}
        onOpen={onOpen}
        onBegin={onBegin}
      />
      <Shelf
        kind={shelf}
        readOnly={readOnly}
        onKind={setShelf}
        onClose={() => setShelf(undefined)}
      />
      <DevicesDrawer open={layer === 'devices'} onClose={close} />
      <KeysAndWords open={layer === 'help'} actions={actions} onClose={close} />
      <MergeDialog onKept={rememberBuild} />
      <DropAnywhere onOpen={onOpen} />
      {layer === 'find' ? (
        <FindAnything
          ways={ways}
          actions={actions}
          onOpen={onOpen}
          onHelp={() => setLayer('help')}
          onClose={close}
        />
      ) : null}
    </PlaceContext>
  )
}

interface FindProps {
  readonly ways: Ways
  readonly actions: readonly Action[]
  readonly onOpen: (id: number) => void
  readonly onHelp: () => void
  readonly onClose: () => void
}

function FindAnything({ onClose, ...doors }: FindProps) {
  return <Palette open commands={useCommands(doors)} onClose={onClose} />
}
