import { App as AntApp, Button, ConfigProvider, Result, Spin } from 'antd'
import { useCallback, useEffect, useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import type { UnitSystem } from '../api/client'
import { Refusal } from '../api/client'
import { BeginDialog } from '../features/begin/BeginDialog'
import { useBuilds, useBuildWork, useOpenedBuild } from '../features/builds/useBuilds'
import { PairPage } from '../features/pairing/PairPage'
import { draftOf, tabStorage } from '../model/draft'
import { Session } from '../model/session'
import { isDevice, useMe } from '../model/useMe'
import { SessionContext } from '../model/useSession'
import { useAddress } from './address'
import { Frame } from './Frame'
import { themeOf } from '../model/theme'
import { useDark } from './useDark'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content

/** Theme around everything. */
export function App() {
  const [dark, setDark] = useDark()
  return (
    <ConfigProvider theme={themeOf(dark)} {...(nonce ? { csp: { nonce } } : {})}>
      <AntApp component={false}>
        <LetIn>
          <Opened dark={dark} onDark={setDark} />
        </LetIn>
      </AntApp>
    </ConfigProvider>
  )
}

/** A device of the network that is not paired sees nothing but the way to be. */
function LetIn({ children }: { children: ReactNode }) {
  const { me, isAsked } = useMe()
  if (!isAsked) return null
  return isDevice(me) && !me?.role ? <PairPage /> : children
}

/** The build in the address, or the one saved last. */
function Opened({ dark, onDark }: { dark: boolean; onDark: (dark: boolean) => void }) {
  const builds = useBuilds()
  const { address, go } = useAddress()
  const wanted = address.build
  const setWanted = useCallback(
    (build: number) => go({ build, step: undefined, paper: undefined, candidate: undefined }),
    [go],
  )
  const [beginning, setBeginning] = useState(false)
  const begin = useCallback(() => setBeginning(true), [])
  const id = wanted ?? builds.data?.[0]?.id
  const opened = useOpenedBuild(id)
  // A tablet for readings begins where they are taken.
  const { me } = useMe()
  const isForReadings = isDevice(me) && me?.role === 'readings'
  const isNowhere = address.step === undefined && address.paper === undefined
  useEffect(() => {
    if (isForReadings && isNowhere && id !== undefined) go({ build: id, paper: 'at-engine' }, true)
  }, [isForReadings, isNowhere, id, go])
  const [system, setSystem] = useState<UnitSystem>('inch')
  const session = useMemo(
    () =>
      opened.data
        ? new Session(opened.data.summary, opened.data.document, address.candidate, system)
        : undefined,
    // Units chosen in a session last for the next one; they do not make a new one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [opened.data],
  )
  useEffect(
    () =>
      session?.subscribe(() => {
        setSystem(session.read().system)
      }),
    [session],
  )
  const work = useBuildWork(setWanted)
  // A list that could not be read anew takes nobody away from the build on screen.
  const trouble = (builds.data ? undefined : builds.error) ?? opened.error
  const left = isGone(opened.error) && id !== undefined ? draftOf(tabStorage(), id) : undefined
  if (trouble) {
    return (
      <Result
        status="warning"
        title="The build could not be read"
        subTitle={
          work.trouble ??
          (left
            ? `${trouble.message}. This tab still holds edits of it that were not saved.`
            : trouble.message)
        }
        extra={[
          <Button
            key="again"
            type={left ? 'default' : 'primary'}
            onClick={() => {
              void builds.refetch()
              void opened.refetch()
            }}
          >
            Try again
          </Button>,
          left ? (
            <Button key="keep" type="primary" onClick={() => void work.keep(left.document)}>
              Keep them as a new build
            </Button>
          ) : null,
          wanted === undefined ? null : (
            <Button
              key="other"
              onClick={() => {
                window.location.hash = ''
                void builds.refetch()
              }}
            >
              Open the build saved last
            </Button>
          ),
        ]}
      />
    )
  }
  const dialog = (
    <BeginDialog
      open={beginning}
      system={system}
      onClose={() => setBeginning(false)}
      onOpen={setWanted}
    />
  )
  if (builds.data?.length === 0 && id === undefined) {
    return (
      <>
        <NoBuilds onBegin={begin} />
        {dialog}
      </>
    )
  }
  if (!session) return <Spin className="opening" size="large" aria-label="Opening the build" />
  return (
    <SessionContext value={session}>
      {dialog}
      <Frame key={id} dark={dark} onDark={() => onDark(!dark)} onOpen={setWanted} onBegin={begin} />
    </SessionContext>
  )
}

function isGone(error: Error | null): boolean {
  return error instanceof Refusal && error.problem.status === 404
}

function NoBuilds({ onBegin }: { onBegin: () => void }) {
  return (
    <Result
      title="No builds in use"
      subTitle="Begin from a likely engine and change what you know; the demo builds come with: upper-lobe demo."
      extra={
        <Button type="primary" onClick={onBegin}>
          Begin a build
        </Button>
      }
    />
  )
}
