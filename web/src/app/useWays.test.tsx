import { act, renderHook } from '@testing-library/react'
import { App as AntApp } from 'antd'
import type { ReactNode } from 'react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Session } from '../model/session'
import { Page, pretend, rested, sessionOn } from '../test/pretend'
import { useWays } from './useWays'

beforeEach(() => {
  pretend()
  window.location.hash = ''
})

async function at(hash: string, session: Session) {
  window.location.hash = hash
  const wrapper = ({ children }: { children: ReactNode }) => (
    <AntApp>
      <Page session={session}>{children}</Page>
    </AntApp>
  )
  const openShelf = vi.fn()
  const ways = renderHook(() => useWays(openShelf), { wrapper })
  await act(() => rested(session))
  return { ways, openShelf }
}

test('an address without a place is completed with what is on screen', async () => {
  const session = sessionOn({ bore: '4 in' })
  const { ways } = await at('', session)
  expect(window.location.hash).toBe('#/build/7/plan/a')
  expect(ways.result.current.place).toEqual({ step: 'plan', focus: undefined, paper: undefined })
  expect(document.title).toBe('A · A build · Plan · Upper Lobe')
})

test('a build with lobes opens where they are seen', async () => {
  const { ways } = await at('', sessionOn({ lobe_lift: '.330 in' }))
  expect(ways.result.current.place.step).toBe('events')
})

test('a step, a field and paper are addresses, and back returns to the one before', async () => {
  const session = sessionOn({ bore: '4 in' })
  const { ways } = await at('/build/7/spring/a', session)
  expect(ways.result.current.place.step).toBe('spring')
  act(() => ways.result.current.goToField('engine.bore'))
  expect(window.location.hash).toBe('#/build/7/engine/a/engine.bore')
  expect(ways.result.current.place).toMatchObject({ step: 'engine', focus: 'engine.bore' })
  act(() => ways.result.current.openPaper('sheet'))
  expect(window.location.hash).toBe('#/build/7/sheet/a')
  expect(ways.result.current.place.paper).toBe('sheet')
  act(() => ways.result.current.goToStep('torque'))
  expect(ways.result.current.place).toEqual({
    step: 'torque',
    focus: undefined,
    paper: undefined,
  })
})

test('choosing a candidate moves the address, and an address chooses the candidate', async () => {
  const session = sessionOn({ bore: '4 in' })
  await at('/build/7/lobe/a', session)
  act(() => session.choose('b'))
  await act(() => rested(session))
  expect(window.location.hash).toBe('#/build/7/lobe/b')
  act(() => {
    window.location.hash = '/build/7/lobe/a'
    window.dispatchEvent(new HashChangeEvent('hashchange'))
  })
  await act(() => rested(session))
  expect(session.read().candidate).toBe('a')
})

test('a candidate that is not in the build is said, and the one on screen stays', async () => {
  const session = sessionOn({ bore: '4 in' })
  await at('/build/7/lobe/a', session)
  act(() => {
    window.location.hash = '/build/7/lobe/zz'
    window.dispatchEvent(new HashChangeEvent('hashchange'))
  })
  await act(() => rested(session, 30))
  expect(session.read().candidate).toBe('a')
  expect(window.location.hash).toBe('#/build/7/lobe/a')
  expect(document.body.textContent).toContain('There is no candidate “zz” in this build')
})

test('the shelf opens over whatever place one is at', async () => {
  const { ways, openShelf } = await at('/build/7/spring/a', sessionOn({ bore: '4 in' }))
  ways.result.current.openShelf('spring')
  expect(openShelf).toHaveBeenCalledWith('spring')
})
