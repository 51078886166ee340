import type { Reading } from '../api/client'
import { aboutOf } from '../features/builds/listed'
import { useBuilds } from '../features/builds/useBuilds'
import { useGlossary } from '../features/glossary/useGlossary'
import { openedMargin } from '../features/margins/opened'
import { marginsOf } from '../features/margins/order'
import type { Command } from '../features/palette/commands'
import { KINDS } from '../features/shelf/kinds'
import { useParts } from '../features/shelf/useShelf'
import { isHidden } from '../model/groups'
import type { StepName, Ways } from '../model/place'
import { useCandidate, useSession, useSessionPart } from '../model/useSession'
import { stepNamed, STEPS, stepOf } from '../steps/registry'
import type { Action } from './actions'

interface Doors {
  readonly ways: Ways
  readonly actions: readonly Action[]
  readonly onOpen: (build: number) => void
  readonly onHelp: () => void
}

/** Everything the palette can find: steps, actions, candidates, fields, margins, results, builds, parts, words. */
export function useCommands(doors: Doors): Command[] {
  const { ways, actions } = doors
  const steps = STEPS.map(({ name, title }): Command => ({
    id: `step ${name}`,
    title,
    kind: 'step',
    run: () => ways.goToStep(name),
  }))
  const listed = actions
    .filter((action) => action.listed)
    .map(({ title, shown, run }): Command => ({
      id: `action ${title}`,
      title,
      kind: 'action',
      run,
      ...(shown === undefined ? {} : { keys: shown }),
    }))
  return [...steps, ...listed, ...useOwn(ways), ...useElsewhere(doors)]
}

/** What is in the build on screen. */
function useOwn(ways: Ways): Command[] {
  const session = useSession()
  const candidate = useCandidate()
  const answer = useSessionPart((state) => state.answer)
  const system = useSessionPart((state) => state.system)
  if (!answer) return []
  const index = answer.candidate_index
  const candidates = answer.candidates.map(({ id, name }): Command => ({
    id: `candidate ${id}`,
    title: name,
    kind: 'candidate',
    run: () => session.choose(id),
  }))
  const fields = (answer.fields ?? [])
    .filter((field) => !isHidden(field.field, index))
    .map(({ field, spoken, help }): Command => ({
      id: `field ${field}`,
      title: spoken,
      also: help,
      kind: stepNamed(stepOf(field, index)).title,
      run: () => ways.goToField(field),
    }))
  const margins = marginsOf(candidate?.limits ?? []).map(({ id, title, worst }): Command => ({
    id: `margin ${id}`,
    title,
    kind: `margin, ${worst.verdict}`,
    run: () => {
      openedMargin.set(id)
      ways.goToField(worst.edit_field)
    },
  }))
  const results = answer.readings
    .filter((reading) => resultStep(reading) !== undefined)
    .map((reading): Command => ({
      id: `result ${reading.id}`,
      title: `${reading.label} ${reading.shown[system]}`,
      kind: 'result',
      run: () => ways.goToStep(resultStep(reading) ?? 'events'),
    }))
  return [...candidates, ...fields, ...margins, ...results]
}

/** Where a result is looked at; limits have their own entries. Pure. */
function resultStep({ id }: Reading): StepName | undefined {
  if (id === 'displacement' || id === 'compression') return 'engine'
  if (id.endsWith('_lift')) return 'rocker'
  const ofEvents =
    /^(event_|(intake|exhaust)_(duration|centreline)$|lobe_separation$|advance$|overlap_|trapped$)/
  return ofEvents.test(id) ? 'events' : undefined
}

/** What is beside the build: other builds, the shelf, the trade's words. */
function useElsewhere({ ways, onOpen, onHelp }: Doors): Command[] {
  const builds = useBuilds().data ?? []
  const parts = useParts().data ?? []
  const words = useGlossary().data ?? []
  return [
    ...builds.map((build): Command => ({
      id: `build ${build.id}`,
      title: build.name,
      also: aboutOf(build),
      kind: 'build',
      run: () => onOpen(build.id),
    })),
    ...KINDS.map(({ kind, many }): Command => ({
      id: `shelf ${kind}`,
      title: `Parts shelf: ${many}`,
      kind: 'shelf',
      run: () => ways.openShelf(kind),
    })),
    ...parts.map(({ part }): Command => ({
      id: `part ${part.kind} ${part.name}`,
      title: part.name,
      kind: `shelf, ${part.kind}`,
      run: () => ways.openShelf(part.kind),
    })),
    ...words.map(({ word, meaning }): Command => ({
      id: `word ${word}`,
      title: word,
      kind: meaning,
      explains: true,
      run: onHelp,
    })),
  ]
}
