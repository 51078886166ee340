import { expect, test } from 'vitest'
import type { FormField, SessionReport } from '../../api/client'
import {
  asked,
  begun,
  partsOfSession,
  freeId,
  taken,
  takenOver,
  stillAsked,
  takenBack,
  readsAlike,
} from './sessions'

const next = {
  table: 'leaks',
  cells: [{ label: 'Cylinder', given: '3' }, { label: 'Supply' }, { label: 'Cylinder gauge' }],
  says: 'cylinder 3',
  gauge: 'plug_hole' as const,
  tool: 'tester',
  place: 3,
  of: 8,
  read: 2,
}

const plain: SessionReport['suggests'][number] = {
  field: 'engine.deck_clearance',
  label: 'Deck clearance',
  from: '0.008 in',
  to: '.011 in',
  doubt: '.002 in',
  why: { inch: '', metric: '' },
}

test('what stands already and what was read make one row', () => {
  expect(asked(next)).toEqual(['Supply', 'Cylinder gauge'])
  expect(taken('s1', next, ['100', '92'])).toEqual({
    take_reading: { session: 's1', table: 'leaks', cells: ['3', '100', '92'] },
  })
})

test('a session gets an identifier of its own', () => {
  expect(freeId([])).toBe('s1')
  expect(freeId([{ id: 's3' }, { id: 'x' }])).toBe('s4')
  const day = new Date(2026, 2, 2, 10)
  expect(begun('springs', 's1', 'a', day)).toEqual({
    begin_session: { session: 's1', kind: 'springs', candidate: 'a', date: '2026-03-02', by: '' },
  })
})

test('what is taken over is measured, and as sure as it was read', () => {
  const field = 'engine.deck_clearance'
  const measured = { source: { field, source: 'measured' } }
  expect(takenOver(plain, 'a')).toEqual([
    { set: { field, text: '.011 in' } },
    measured,
    { tolerance: { field, plus_minus: '.002 in' } },
  ])
  const rows = [['.1 in', '66 cfm']]
  expect(takenOver({ ...plain, doubt: null, rows }, 'a')).toEqual([
    { rows: { field, rows } },
    measured,
  ])
  const lobe = { side: 'intake' as const, text: '0 0 mm' }
  expect(takenOver({ ...plain, lobe }, 'b')).toEqual([
    { import_lobe: { candidate: 'b', side: 'intake', text: '0 0 mm' } },
  ])
})

test('a session is described by its plain fields and read in its tables', () => {
  const plainField: FormField = {
    field: '',
    label: '',
    spoken: '',
    help: '',
    needs: { inch: '', metric: '' },
    text: '',
    choices: [],
    unit_inch: '',
    unit_metric: '',
    source: 'unmarked',
    given: true,
    sided: false,
    applies: true,
  }
  const table = { columns: [], rows: [], most: 9 }
  const field = (name: string, isTable = false): FormField =>
    isTable ? { ...plainField, field: name, table } : { ...plainField, field: name }
  const all = ['bench[2].kind', 'bench[2].by'].map((own) => field(own))
  const { setUp, read } = partsOfSession([...all, field('bench[2].readings', true)])
  expect(setUp.map((own) => own.field)).toEqual(['bench[2].by'])
  expect(read.map((own) => own.field)).toEqual(['bench[2].readings'])
})

test('the hand goes on by what was asked when its readings are on their way', () => {
  const row = (cylinder: string, place: number) => ({
    ...next,
    place,
    cells: [{ label: 'Cylinder', given: cylinder }, { label: 'Supply' }],
  })
  const ahead = [row('1', 1), row('1', 2), row('2', 3)]
  const of = (cylinder: string) => ({
    take_reading: { session: 's', table: 'leaks', cells: [cylinder, '90'] },
  })
  const place = (...edits: Parameters<typeof stillAsked>[1][number][]) =>
    stillAsked(ahead, edits)?.place
  expect(place()).toBe(1)
  expect(place(of('1'))).toBe(2)
  expect(place(of('2'))).toBe(1)
  expect(place(of('1'), of('1'))).toBe(3)
  expect(place(of('1'), of('1'), of('2'))).toBeUndefined()
  // One more of what has enough, or of another table, stands for none that is asked.
  expect(place(of('3'))).toBe(1)
  expect(place({ take_reading: { session: 's', table: 'decks', cells: ['1', '2'] } })).toBe(1)
  expect(takenBack('s', next)).toEqual({ take_back: { session: 's', table: 'leaks', of: 2 } })
})

test('what was taken by hand and came to rest there is one reading', () => {
  expect(readsAlike('2.0 deg', '2.2 deg')).toBe(true)
  expect(readsAlike('2.0 deg', '2.4 deg')).toBe(false)
  expect(readsAlike('212.5', '2.5')).toBe(false)
  expect(readsAlike('140 lbf', '143 lbf')).toBe(true)
  expect(readsAlike('0.0015 in', '0.0019 in')).toBe(false)
  expect(readsAlike('none', '1.0')).toBe(false)
})
