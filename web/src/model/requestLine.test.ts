import { expect, test, vi } from 'vitest'
import { RequestLine } from './requestLine'

const settle = () => new Promise((resolve) => setTimeout(resolve, 0))

test('of droppable requests that wait only the newest is made', async () => {
  const made: string[] = []
  const line = new RequestLine<string>(
    () => undefined,
    () => undefined,
  )
  const request = (name: string) => () => {
    made.push(name)
    return Promise.resolve(name)
  }
  for (const name of ['a', 'b', 'c', 'd']) line.ask(request(name), true)
  await settle()
  expect(made).toEqual(['a', 'd'])
})

test('an edit is never dropped and keeps its place', async () => {
  const answers: string[] = []
  const line = new RequestLine<string>(
    (value) => answers.push(value),
    () => undefined,
  )
  const ask = (name: string, droppable: boolean) => {
    line.ask(() => Promise.resolve(name), droppable)
  }
  ask('preview 1', true)
  ask('edit 1', false)
  ask('edit 2', false)
  ask('preview 2', true)
  ask('preview 3', true)
  await settle()
  expect(answers).toEqual(['preview 1', 'edit 1', 'edit 2', 'preview 3'])
})

test('a failure is told and the next request still runs', async () => {
  const failures: unknown[] = []
  const answers: string[] = []
  const line = new RequestLine<string>(
    (value) => answers.push(value),
    (error) => failures.push(error),
  )
  line.ask(() => Promise.reject(new Error('no')))
  line.ask(() => Promise.resolve('yes'))
  await settle()
  expect(failures).toHaveLength(1)
  expect(answers).toEqual(['yes'])
})

test('a listener that throws does not stop the line', async () => {
  const answers: string[] = []
  const line = new RequestLine<string>(
    (value) => answers.push(value),
    () => {
      throw new Error('the listener is broken')
    },
  )
  const silent = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  line.ask(() => Promise.reject(new Error('no')))
  line.ask(() => Promise.resolve('yes'))
  await settle()
  expect(answers).toEqual(['yes'])
  silent.mockRestore()
})
