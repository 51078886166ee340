import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { vi } from 'vitest'
import type { BuildSummary, Edit, FormField, LimitReport, WorkbenchAnswer } from '../api/client'
import { client } from '../api/client'
import { Session } from '../model/session'
import { SessionContext } from '../model/useSession'

/**
 * A server that keeps a document of named texts, for tests of what the page does with its answers. "bad" is refused by its
 * field, "away" gets no answer, "broken" an answer nobody can read. It computes nothing.
 */

type Held = Record<string, string | string[][]>

export const SUMMARY: BuildSummary = {
  id: 7,
  name: 'A build',
  revision: 3,
  saved_at: '2026-01-02T03:04:05Z',
}

const textOf = (held: Held): string => JSON.stringify(held)
export const heldIn = (document: string): Held => JSON.parse(document) as Held

export function formField(path: string, text: string, more: Partial<FormField> = {}): FormField {
  return {
    field: path,
    label: path,
    spoken: path,
    help: `What ${path} is.`,
    needs: { inch: 'a length', metric: 'a length' },
    text,
    unit_inch: 'in',
    unit_metric: 'mm',
    source: 'unmarked',
    given: text !== '',
    choices: [],
    sided: false,
    applies: true,
    ...more,
  }
}

export function limit(id: string, more: Partial<LimitReport> = {}): LimitReport {
  return {
    id,
    title: id,
    sense: 'at_least',
    need: { min: 1 },
    have: 2,
    margin: 1,
    unit: 'mm',
    verdict: 'ok',
    school: 'a school',
    source: 'a source',
    place: 'spring',
    formula: 'a formula',
    computed: false,
    inputs: [],
    missing: [],
    remedies: [],
    edit_field: id,
    shown: {
      need: { inch: '.040 in', metric: '1.00 mm' },
      have: { inch: '.079 in', metric: '2.00 mm' },
      margin: { inch: '+.039 in', metric: '+1.00 mm' },
      have_at: 0.7,
      need_at: [0.5],
    },
    ...more,
  }
}

function fieldOf(path: string, value: string | string[][]): FormField {
  if (typeof value === 'string') return formField(path, value)
  const column = (label: string) => ({ label, unit_inch: 'in', unit_metric: 'mm', choices: [] })
  return formField(path, '', {
    given: true,
    table: { columns: [column('Angle'), column('Lift')], rows: value, most: 1440 },
  })
}

export interface Pretend {
  /** Bodies of what was asked, in order. */
  readonly asked: {
    document: string
    edits: Edit[]
    parts: string[]
    candidate: string | null
    form: boolean
  }[]
  /** What is saved, by revision. */
  readonly saved: { base: number; document: string }[]
  /** Answers wait until it is called, once each. */
  hold: () => () => void
  /** The next save is refused with this problem. */
  refuseSave: (problem: { status: number; newest_revision?: number }) => void
  limits: LimitReport[]
}

/** Puts the server in the place of the real one until mocks are restored. */
export function pretend(): Pretend {
  const asked: Pretend['asked'] = []
  const saved: Pretend['saved'] = []
  let gate: Promise<void> = Promise.resolve()
  let refusal: { status: number; newest_revision?: number } | undefined
  const server: Pretend = {
    asked,
    saved,
    limits: [limit('coil bind')],
    hold: () => {
      let open: () => void = () => undefined
      gate = new Promise((done) => {
        open = done
      })
      return () => {
        open()
      }
    },
    refuseSave: (problem) => {
      refusal = problem
    },
  }
  const answer = (body: Pretend['asked'][number]): unknown => {
    const held = heldIn(body.document)
    for (const edit of body.edits) {
      if ('rows' in edit) held[edit.rows.field] = edit.rows.rows
      if (!('set' in edit)) continue
      const { field, text } = edit.set
      if (text === 'away') throw new TypeError('no network')
      if (text === 'broken') return { data: { document: 5 } }
      if (text === 'bad') {
        const fault = {
          field,
          label: field,
          given: text,
          needs: 'a good one',
          shown: { inch: 'a good one', metric: 'a good one' },
        }
        return {
          error: {
            type: 'urn:upper-lobe:problem:refused-values',
            title: 'refused values',
            status: 422,
            detail: `${field}: ${text}`,
            faults: [fault],
          },
        }
      }
      held[field] = text
    }
    return { data: answerOf(body, held, server.limits) }
  }
  const post = (async (path: string, { body }: { body: Pretend['asked'][number] }) => {
    if (path !== '/api/workbench') return { data: { ...SUMMARY, id: 8, revision: 1 } }
    asked.push(body)
    await gate
    return answer(body)
  }) as unknown as typeof client.POST
  const put = (async (
    _: string,
    { body }: { body: { base_revision: number; document: string } },
  ) => {
    await gate
    const refused = refusal
    refusal = undefined
    if (refused)
      return {
        error: { type: 'urn:x', title: 'refused', detail: 'refused', faults: [], ...refused },
      }
    saved.push({ base: body.base_revision, document: body.document })
    return { data: { ...SUMMARY, revision: body.base_revision + 1 } }
  }) as unknown as typeof client.PUT
  vi.spyOn(client, 'POST').mockImplementation(post)
  vi.spyOn(client, 'PUT').mockImplementation(put)
  vi.spyOn(client, 'GET').mockImplementation(() => Promise.resolve({ data: [] }))
  return server
}

function answerOf(
  body: Pretend['asked'][number],
  held: Held,
  limits: LimitReport[],
): WorkbenchAnswer {
  const not = { state: 'not_asked' }
  const candidate = {
    id: body.candidate ?? 'a',
    name: 'A',
    limits,
    measure_next: [],
    engine: not,
    timing: not,
    strip: not,
    lift: not,
    lobe: not,
    train: not,
    spring: not,
    control: not,
    clearance: not,
    drawing: not,
    breathing: not,
    dynamics: not,
  }
  const answer = {
    document: textOf(held),
    name: 'A build',
    candidates: [
      { id: 'a', name: 'A' },
      { id: 'b', name: 'B' },
    ],
    candidate_index: body.candidate === 'b' ? 1 : 0,
    handles: [],
    readings: Object.entries(held)
      .filter(([, value]) => typeof value === 'string')
      .map(([id, text]) => ({ id, label: id, shown: { inch: text, metric: text } })),
    ...(body.form
      ? { fields: Object.entries(held).map(([path, value]) => fieldOf(path, value)) }
      : {}),
    analysis: { candidates: [candidate], assumed: [], warnings: [], scales: {}, engine: not },
  }
  return answer as unknown as WorkbenchAnswer
}

/** A session on a document of these texts. */
export function sessionOn(held: Held): Session {
  return new Session(SUMMARY, textOf(held), undefined, 'inch')
}

/** Until nothing is on its way any more. */
export async function rested(session: Session, times = 12): Promise<void> {
  for (let turn = 0; turn < times; turn += 1)
    await new Promise((done) => {
      setTimeout(done, 0)
    })
  session.read()
}

/** A component in the session's page. */
export function Page({ session, children }: { session: Session; children: ReactNode }) {
  return (
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <SessionContext value={session}>{children}</SessionContext>
    </QueryClientProvider>
  )
}
