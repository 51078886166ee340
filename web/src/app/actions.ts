import type { UnitSystem } from '../api/client'
import type { Session } from '../model/session'
import type { Ways } from '../model/place'
import { STEPS } from '../steps/registry'

/** One thing that can be done from anywhere: its keys, its line in the help, its name in the palette. */
export interface Action {
  readonly title: string
  /** Key bindings as tinykeys reads them; an action without any is found by its name. */
  readonly keys: readonly string[]
  /** The same as people say them. */
  readonly shown?: string
  /** Where its keys hold: everywhere, where no text has its own undo, or outside fields alone. */
  readonly where: 'everywhere' | 'not over typed text' | 'outside fields'
  /** Whether the palette lists it; steps and candidates are listed by their own names. */
  readonly listed: boolean
  readonly run: () => void
}

/** What the frame can open or turn. */
export interface Switches {
  readonly find: () => void
  readonly help: () => void
  readonly builds: () => void
  /** Where this page may: the main screen's alone. */
  readonly devices: (() => void) | undefined
  readonly begin: () => void
  readonly strip: () => void
  readonly dark: () => void
}

/** Keys of the steps in their order: those of the row of digits and the two after it. */
const STEP_KEYS = "1 2 3 4 5 6 7 8 9 0 - = [ ] ; ' , .".split(' ')
const CODES: Readonly<Record<string, string>> = {
  '-': 'Minus',
  '=': 'Equal',
  '[': 'BracketLeft',
  ']': 'BracketRight',
  ';': 'Semicolon',
  "'": 'Quote',
  ',': 'Comma',
  '.': 'Period',
}

/** The one table of actions: keys, help and palette are made from it. Pure. */
export function actionsOf(
  session: Session,
  system: UnitSystem,
  ways: Ways,
  switches: Switches,
): Action[] {
  const metric = system === 'metric'
  return [
    outside('Find anything', ['/', 'Shift+/'], '/ or Ctrl+K', switches.find, false),
    { ...everywhere('Find anything', '$mod+KeyK', switches.find), listed: false },
    everywhere('Save', '$mod+KeyS', () => session.save(), 'Ctrl+S'),
    overText('Undo', '$mod+KeyZ', () => session.undo(), 'Ctrl+Z'),
    overText('Redo', '$mod+Shift+KeyZ', () => session.redo(), 'Ctrl+Shift+Z'),
    { ...overText('Redo', '$mod+KeyY', () => session.redo()), listed: false },
    everywhere('The strip tall or slim', 'Alt+KeyS', switches.strip, 'Alt+S'),
    ...STEPS.map((step, place) => ({
      ...everywhere(step.title, stepKey(place), () => ways.goToStep(step.name)),
      listed: false,
    })),
    {
      ...everywhere(
        'Candidate before',
        'Alt+ArrowLeft',
        () => nextCandidate(session, -1),
        'Alt+Left',
      ),
      listed: false,
    },
    {
      ...everywhere(
        'Next candidate',
        'Alt+ArrowRight',
        () => nextCandidate(session, 1),
        'Alt+Right',
      ),
      listed: false,
    },
    outside('Keys and words', ['?', 'Shift+?'], '?', switches.help, true),
    named('Begin a build', switches.begin),
    named('Builds: open, history, archive', switches.builds),
    ...(switches.devices ? [named('Devices of the shop', switches.devices)] : []),
    named('Print or read the build sheet', () => ways.openPaper('sheet')),
    named(metric ? 'Show inches' : 'Show millimetres', () =>
      session.useUnits(metric ? 'inch' : 'metric'),
    ),
    named('Light or dark', switches.dark),
  ]
}

/** The keys of a step, as tinykeys reads them; by their place on the keyboard, since Alt changes what they write. */
function stepKey(place: number): string {
  const key = STEP_KEYS[place] ?? ''
  return `Alt+${CODES[key] ?? `Digit${key}`}`
}

/** Lines of the help: actions that have keys, and keys that hold on the strip and in fields. Pure. */
export function helpOf(actions: readonly Action[]): readonly (readonly [string, string])[] {
  return [
    ...actions.flatMap(({ shown, title }): [string, string][] =>
      shown === undefined ? [] : [[shown, title]],
    ),
    [
      `Alt+${STEP_KEYS[0] ?? ''} to Alt+${STEP_KEYS[STEPS.length - 1] ?? ''}`,
      'The steps of the work in their order',
    ],
    ['Left, Right on the strip', 'Crank by a degree; ten with Shift'],
    ['+, -, 0 on the strip', 'Zoom in, out, the whole cycle'],
    ['Left, Right on an event', 'Nudge it by half a degree; five with Shift'],
    ['Left, Right on a chart', 'Read it point by point'],
    ['Enter, Escape in a field', 'Take what is typed, take it back'],
  ]
}

function nextCandidate(session: Session, by: number): void {
  const answer = session.read().answer
  const next = answer?.candidates[answer.candidate_index + by]
  if (next) session.choose(next.id)
}

function everywhere(title: string, keys: string, run: () => void, shown?: string): Action {
  return {
    title,
    keys: [keys],
    where: 'everywhere',
    listed: true,
    run,
    ...(shown === undefined ? {} : { shown }),
  }
}

function overText(title: string, keys: string, run: () => void, shown?: string): Action {
  return { ...everywhere(title, keys, run, shown), where: 'not over typed text' }
}

function outside(
  title: string,
  keys: readonly string[],
  shown: string,
  run: () => void,
  listed: boolean,
): Action {
  return { title, keys, shown, where: 'outside fields', listed, run }
}

function named(title: string, run: () => void): Action {
  return { title, keys: [], where: 'everywhere', listed: true, run }
}
