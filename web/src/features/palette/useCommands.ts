import type { StepName } from '../../app/steps'
import { isHidden, stepOf, STEPS } from '../../app/steps'
import type { PartKind } from '../../api/client'
import { KINDS } from '../shelf/kinds'
import { useSession, useSessionPart } from '../session/useSession'
import type { Command } from './commands'

interface Actions {
  readonly goToStep: (step: StepName) => void
  readonly goToField: (step: StepName, field: string) => void
  readonly openBuilds: () => void
  readonly openSheet: () => void
  readonly openShelf: (kind: PartKind) => void
  readonly openHelp: () => void
  readonly toggleDark: () => void
}

/** Everything the palette can find. */
export function useCommands(actions: Actions): Command[] {
  const session = useSession()
  const fields = useSessionPart((state) => state.answer?.fields)
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const system = useSessionPart((state) => state.system)
  const simple = (title: string, run: () => void, keys?: string): Command => ({ id: title, title, kind: 'action', run, ...(keys ? { keys } : {}) })
  const steps = STEPS.map((step): Command => ({ id: step.name, title: step.title, kind: 'step', run: () => { actions.goToStep(step.name) } }))
  const others = (candidates ?? []).map((c): Command => ({ id: `candidate ${c.id}`, title: c.name, kind: 'candidate', run: () => { session.choose(c.id) } }))
  const all = (fields ?? []).filter((field) => !isHidden(field.field, index)).map((field): Command => {
    const step = stepOf(field.field, index)
    return { id: field.field, title: field.spoken, kind: STEPS.find((s) => s.name === step)?.title ?? '', run: () => { actions.goToField(step, field.field) } }
  })
  return [
    ...steps,
    simple('Save', () => { session.save() }, 'Ctrl+S'),
    simple('Undo', () => { session.undo() }, 'Ctrl+Z'),
    simple('Redo', () => { session.redo() }, 'Ctrl+Shift+Z'),
    simple('Builds: open, begin, history, archive', actions.openBuilds),
    ...KINDS.map(({ kind, many }) => simple(`Parts shelf: ${many}`, () => { actions.openShelf(kind) })),
    simple('Print or read the build sheet', actions.openSheet),
    simple(system === 'inch' ? 'Show millimetres' : 'Show inches', () => { session.useUnits(system === 'inch' ? 'metric' : 'inch') }),
    simple('Light or dark', actions.toggleDark),
    simple('Keys and words', actions.openHelp, '?'),
    ...others,
    ...all,
  ]
}
