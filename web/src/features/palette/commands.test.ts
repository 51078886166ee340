import { expect, test } from 'vitest'
import type { Command } from './commands'
import { found } from './commands'

const command = (title: string, kind = 'field') => ({
  id: title,
  title,
  kind,
  run: () => undefined,
})
const commands = [
  command('Intake lobe lift'),
  command('Lobe', 'step'),
  command('Save', 'action'),
  command('Undo', 'action'),
]

test('every word must be there, what begins with it comes first', () => {
  expect(found(commands, 'lobe').map((c) => c.title)).toEqual(['Lobe', 'Intake lobe lift'])
  expect(found(commands, 'lift lobe').map((c) => c.title)).toEqual(['Intake lobe lift'])
  expect(found(commands, 'action').map((c) => c.title)).toEqual(['Save', 'Undo'])
  expect(found(commands, 'nothing')).toEqual([])
})

test('American and British spellings find the same', () => {
  const spelled = [
    command('Intake centreline'),
    command('Carburettor flow'),
    command('Show millimetres', 'action'),
  ]
  for (const typed of ['centreline', 'centerline', 'Intake Center'])
    expect(found(spelled, typed).map((c) => c.title)).toEqual(['Intake centreline'])
  expect(found(spelled, 'carburetor')).toHaveLength(1)
  expect(found(spelled, 'meters')).toEqual(found(spelled, 'metres'))
})

test('nothing typed lists everything up to the most', () => {
  expect(found(commands, '', 3)).toHaveLength(3)
})

test('what can be gone to stands before what only explains, and other words lead to it too', () => {
  const run = () => undefined
  const all: Command[] = [
    { id: 'w', title: 'Coil bind', kind: 'All coils touch', explains: true, run },
    { id: 'f', title: 'Spring coil bind height', kind: 'Spring', also: 'Measured solid.', run },
  ]
  expect(found(all, 'coil bind').map(({ id }) => id)).toEqual(['f', 'w'])
  expect(found(all, 'solid').map(({ id }) => id)).toEqual(['f'])
})
