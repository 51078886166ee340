import { ConfigProvider } from 'antd'
import { useCallback, useContext, useMemo, useState } from 'react'
import { BuildsDrawer } from '../features/builds/BuildsDrawer'
import { useServerState } from '../features/builds/useBuilds'
import type { PartKind } from '../api/client'
import { MergeDialog } from '../features/merge/MergeDialog'
import { Palette } from '../features/palette/Palette'
import { useCommands } from '../features/palette/useCommands'
import { useSession, useSessionPart } from '../features/session/useSession'
import { Shelf } from '../features/shelf/Shelf'
import { useStripView } from '../features/strip/useStripView'
import type { Place, PlaceControl } from './place'
import { PlaceContext } from './place'
import { Shortcuts } from './Shortcuts'
import { useShortcuts } from './shortcuts'
import type { StepName } from './steps'
import { TALL_AT_FIRST } from './steps'
import { themeOf } from './theme'
import { TopBar } from './TopBar'
import { Workbench } from './Workbench'

const BAR_THEME = themeOf(true)

type Layer = 'builds' | 'find' | 'help'

/** One opened build: bar, bench, and what opens over them. */
export function Frame({ dark, onDark, onOpen }: { dark: boolean; onDark: () => void; onOpen: (id: number) => void }) {
  const session = useSession()
  const current = useSessionPart((state) => state.summary.id)
  const readOnly = useServerState().data?.read_only === true
  const [layer, setLayer] = useState<Layer>()
  const [shelf, setShelf] = useState<PartKind>()
  const [place, setPlace] = useState<Place>(() => ({ step: firstStep(session.read().history.present), focus: undefined, sheet: false }))
  const goToStep = useCallback((step: StepName) => { setPlace({ step, focus: undefined, sheet: false }) }, [])
  const control: PlaceControl = useMemo(() => ({
    place,
    goToStep,
    goToField: (step: StepName, focus: string) => { setPlace({ step, focus, sheet: false }) },
    openSheet: () => { setPlace((now) => ({ ...now, sheet: true })) },
    openShelf: setShelf,
    closeSheet: () => { setPlace((now) => ({ ...now, sheet: false })) },
  }), [place, goToStep])
  const strip = useStripView(place.step, TALL_AT_FIRST.includes(place.step))
  const keys = useMemo(() => ({ find: () => { setLayer('find') }, help: () => { setLayer('help') }, step: goToStep, strip: strip.onTall }), [goToStep, strip.onTall])
  useShortcuts(session, keys)
  const close = () => { setLayer(undefined) }
  const builds = useCallback(() => { setLayer('builds') }, [])
  return (
    <PlaceContext value={control}>
      {/* The bar is dark in both themes. */}
      <ConfigProvider theme={BAR_THEME}>
        <TopBar readOnly={readOnly} dark={dark} onDark={onDark} onOpen={onOpen} onBuilds={builds} onFind={keys.find} onHelp={keys.help} onSheet={control.openSheet} onShelf={control.openShelf} />
      </ConfigProvider>
      <Workbench strip={strip} onOpen={onOpen} />
      <BuildsDrawer open={layer === 'builds'} current={current} readOnly={readOnly} onClose={close} onOpen={onOpen} />
      <Shelf kind={shelf} readOnly={readOnly} onKind={setShelf} onClose={() => { setShelf(undefined) }} />
      <Shortcuts open={layer === 'help'} onClose={close} />
      <MergeDialog />
      {layer === 'find' ? <FindAnything onClose={close} onBuilds={builds} onHelp={keys.help} onDark={onDark} /> : null}
    </PlaceContext>
  )
}

/** A build without any lobe begins at the plan; one with lobes opens where they are seen. */
function firstStep(document: string): StepName {
  return document.includes('"lobe_lift"') || document.includes('"profile"') ? 'events' : 'plan'
}

function FindAnything({ onClose, onBuilds, onHelp, onDark }: { onClose: () => void; onBuilds: () => void; onHelp: () => void; onDark: () => void }) {
  const control = useContext(PlaceContext)
  const nothing = () => undefined
  const commands = useCommands({
    goToStep: control?.goToStep ?? nothing,
    goToField: control?.goToField ?? nothing,
    openSheet: control?.openSheet ?? nothing,
    openShelf: control?.openShelf ?? nothing,
    openBuilds: onBuilds,
    openHelp: onHelp,
    toggleDark: onDark,
  })
  return <Palette open commands={commands} onClose={onClose} />
}
