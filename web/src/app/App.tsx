import { App as AntApp, Button, ConfigProvider, Result, Spin } from 'antd'
import { useEffect, useMemo, useState } from 'react'
import type { UnitSystem } from '../api/client'
import { useBuilds, useOpenedBuild } from '../features/builds/useBuilds'
import { Session } from '../features/session/session'
import { SessionContext } from '../features/session/useSession'
import { useBuildInAddress } from './address'
import { useShortcuts } from './shortcuts'
import { themeOf } from './theme'
import { TopBar } from './TopBar'
import { useDark } from './useDark'
import { Workbench } from './Workbench'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content

const BAR_THEME = themeOf(true)

/** Theme and frame around everything. */
export function App() {
  const [dark, setDark] = useDark()
  return (
    <ConfigProvider theme={themeOf(dark)} {...(nonce ? { csp: { nonce } } : {})}>
      <AntApp component={false}>
        <Opened dark={dark} onDark={setDark} />
      </AntApp>
    </ConfigProvider>
  )
}

/** The build in the address, or the one saved last. */
function Opened({ dark, onDark }: { dark: boolean; onDark: (dark: boolean) => void }) {
  const builds = useBuilds()
  const [wanted, setWanted] = useBuildInAddress()
  const id = wanted ?? builds.data?.[0]?.id
  const opened = useOpenedBuild(id)
  const [system, setSystem] = useState<UnitSystem>('inch')
  const session = useMemo(
    () => (opened.data ? new Session(opened.data.summary, opened.data.document, undefined, system) : undefined),
    // Units chosen in a session last for the next one; they do not make a new one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [opened.data],
  )
  useEffect(() => session?.subscribe(() => { setSystem(session.read().system) }), [session])
  useShortcuts(session)
  const trouble = builds.error ?? opened.error
  if (trouble) {
    return (
      <Result
        status="warning"
        title="The builds could not be read"
        subTitle={trouble.message}
        extra={<Button type="primary" onClick={() => { void builds.refetch(); void opened.refetch() }}>Try again</Button>}
      />
    )
  }
  if (builds.data?.length === 0) {
    return <Result title="No builds yet" subTitle="Load the demo with: upper-lobe demo, then open this page again." />
  }
  if (!session) return <Spin className="opening" size="large" aria-label="Opening the build" />
  return (
    <SessionContext value={session}>
      {/* The bar is dark in both themes. */}
      <ConfigProvider theme={BAR_THEME}>
        <TopBar builds={builds.data ?? []} onOpen={setWanted} dark={dark} onDark={onDark} />
      </ConfigProvider>
      <Workbench key={id} />
    </SessionContext>
  )
}
