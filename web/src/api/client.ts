import { asker } from './aside'
import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Analysis = Schemas['Analysis']
export type CandidateReport = Schemas['CandidateReport']
export type StripReport = Extract<CandidateReport['strip'], { state: 'done' }>
export type LimitReport = Schemas['LimitReport']
export type Reading = Schemas['Reading']
export type BenchFinding = Schemas['BenchFinding']
export type SessionReport = Schemas['SessionReport']
export type ExpectedReport = Schemas['ExpectedReport']
export type SessionSheet = Schemas['SessionSheet']
export type AssemblyLine = Schemas['AssemblyLine']
export type AssemblyReport = Schemas['AssemblyReport']
export type Gauge = Schemas['Gauge']
export type Instrument = Schemas['Instrument']
export type LiveLine = Schemas['LiveLine']
export type Weighed = Schemas['Weighed']
export type MarginMoved = Schemas['MarginMoved']
export type EventHandle = Schemas['EventHandle']
export type EventName = Schemas['Event']
export type CardNumber = Schemas['CardNumber']
export type Edit = Schemas['Edit']
export type FormField = Schemas['FormField']
export type Fault = Schemas['Fault']
export type PartName = Schemas['PartName']
export type Problem = Schemas['Problem']
export type Shown = Schemas['Shown']
export type Scale = Schemas['Scale']
export type UnitSystem = Schemas['UnitSystem']
export type Verdict = Schemas['Verdict']
export type WorkbenchAnswer = Schemas['WorkbenchAnswer']
export type WorkbenchRequest = Schemas['WorkbenchRequest']
export type FormTable = Schemas['FormTable']
export type FormColumn = Schemas['FormColumn']
export type MeasureNext = Schemas['MeasureNext']
export type DrawingReport = Extract<CandidateReport['drawing'], { state: 'done' }>
export type ValveDrawing = Schemas['ValveDrawing']
export type Beside = Schemas['Beside']
export type Column = Schemas['Column']
export type Difference = Schemas['Difference']
export type Merged = Schemas['Merged']
export type Conflict = Schemas['Conflict']
export type Place = Schemas['Place']
export type Term = Schemas['Term']
export type Asked = Schemas['Asked']
export type BecauseReport = Schemas['BecauseReport']
export type BeginningReport = Schemas['BeginningReport']
export type FamilyReport = Schemas['FamilyReport']
export type OrderCard = Schemas['OrderCard']
export type LobeOutline = Schemas['LobeOutline']
export type ListedBuild = Schemas['ListedBuild']
export type BuildSummary = Schemas['BuildSummary']
export type OpenedBuild = Schemas['OpenedBuild']
export type Me = Schemas['Me']
export type Role = Schemas['Role']
export type Devices = Schemas['Devices']
export type PairingState = Schemas['PairingState']
export type ShownCode = Schemas['ShownCode']
export type CurveLine = Schemas['Line_CurveStep_CurveDone']
export type CurveRequest = Schemas['CurveRequest']
export type CurveReport = Schemas['BreathingReport']
export type Effort = Schemas['Effort']
export type Effect = Schemas['Effect']
export type ControlLine = Schemas['Line_ControlStep_ControlDone']
export type ChooseLine = Schemas['Line_ChooseStep_ChooseDone']
export type SearchLine = Schemas['Line_SearchStep_SearchDone']
export type ScoreLine = Schemas['Line_ScoreStep_ScoreDone']
export type ScoreReport = Schemas['ScoreReport']
export type ScoreColumn = Schemas['ScoreColumn']
export type ScoreRow = Schemas['ScoreRow']
export type SearchReport = Schemas['SearchReport']
export type BesideSetup = Schemas['BesideSetup']
export type SearchPoint = Schemas['SearchPoint']
export type SearchSetup = Schemas['SearchSetup']
export type FinalistReport = Schemas['FinalistReport']
export type Goal = Schemas['Goal']
export type Start = Schemas['Start']
export type ChooseReport = Schemas['ChooseReport']
export type DecisionReport = Schemas['DecisionReport']
export type FieldTexts = Schemas['FieldTexts']
export type HardwareReport = Schemas['HardwareReport']
export type ProposalReport = Schemas['ProposalReport']
export type FollowReport = Schemas['FollowReport']
export type DynamicsReport = Schemas['DynamicsReport']
export type AtSpeedSide = Schemas['AtSpeedSide']
export type GrowthTerm = Schemas['GrowthTerm']
export type MarkReport = Schemas['MarkReport']
export type WeighLine = Schemas['Line_WeighStep_WeighDone']
export type ToleranceLine = Schemas['Line_ToleranceStep_ToleranceDone']
export type ToleranceReport = Schemas['ToleranceReport']
export type ToleranceLimit = Schemas['ToleranceLimit']
export type TolerancedField = Schemas['TolerancedField']
export type PhasingLine = Schemas['Line_PhasingStep_PhasingDone']
export type PhasingReport = Schemas['PhasingReport']
export type DynamicsSide = Schemas['DynamicsSide']
export type FilmReport = Schemas['FilmReport']
export type FilmSide = Schemas['FilmSide']
export type SpeedBought = Schemas['SpeedBought']
export type SensitivityLine = Schemas['Line_SensitivityStep_SensitivityDone']
export type MotionLine = Schemas['Line_MotionFitStep_MotionDone']
export type MotionFitReport = Schemas['MotionFitReport']
export type CalibrateLine = Schemas['Line_CalibrationStep_CalibrateDone']
export type CalibrationReport = Schemas['CalibrationReport']
export type TrainReport = Extract<CandidateReport['train'], { state: 'done' }>['intake']
export type RockerReport = NonNullable<TrainReport['rocker']>
type LobeReports = Extract<CandidateReport['lobe'], { state: 'done' }>
export type LobeReport = LobeReports['intake']
export type SpringReport = Extract<CandidateReport['spring'], { state: 'done' }>['intake']
export type TraceReport = Schemas['TraceReport']
export type Part = Schemas['Part']
export type Named = Schemas['Named']
export type Remedy = Schemas['Remedy']
export type PartKind = Schemas['PartKind']
export type ShelfPart = Schemas['ShelfPart']
export type FitReport = Schemas['FitReport']
export type FitMargin = Schemas['FitMargin']
export type DynoReport = Schemas['DynoReport']
export type ServiceReport = Schemas['ServiceReport']
export type ShopReport = Schemas['ShopReport']
export type HistoryReport = Schemas['HistoryReport']
export type PullsReport = Schemas['PullsReport']
export type PullReport = Schemas['PullReport']
export type TestPlanReport = Schemas['TestPlanReport']
export type PullFileAnswer = Schemas['PullFileAnswer']
export type PullFileReport = Schemas['PullFileReport']
export type PullColumn = Schemas['PullColumn']
export type Mapped = Schemas['Mapped']
export type Holds = Schemas['Holds']
export type DiagnosisLine = Schemas['Line_DiagnosisStep_DiagnosisDone']
export type DiagnosisReport = Schemas['DiagnosisReport']
export type DifferenceReport = Schemas['DifferenceReport']
export type SideWord = Schemas['Side']

/** This page to the server: each page has its turn. */
export const PAGE_HEADERS: Readonly<Record<string, string>> = {
  'Upper-Lobe-Page': crypto.randomUUID(),
}

export const client = createClient<paths>({ baseUrl: '/', headers: PAGE_HEADERS })

const ask = asker(
  () => new Worker(new URL('./aside.worker.ts', import.meta.url), { type: 'module' }),
)

/** The workbench asked beside the page where the browser can: what follows a drag. */
export async function askedAside(body: WorkbenchRequest): Promise<WorkbenchAnswer> {
  if (typeof Worker === 'undefined') return answered(client.POST('/api/workbench', { body }))
  const url = new URL('/api/workbench', window.location.href).href
  const { data, error } = await ask({ url, headers: PAGE_HEADERS, body })
  if (data) return data
  if (error !== undefined) throw new Refusal(refusalOf(error))
  // Neither: the page asks itself, and tells whether it is the server that does not answer.
  return answered(client.POST('/api/workbench', { body }))
}

/** A refusal of the server, or its silence. */
export class Refusal extends Error {
  readonly problem: Problem

  constructor(problem: Problem) {
    super(problem.detail)
    this.problem = problem
  }
}

/** The data of an answer; throws a {@link Refusal} for anything else. */
export async function answered<T>(call: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let result: { data?: T; error?: unknown }
  try {
    result = await call
  } catch {
    throw new Refusal(unreachable())
  }
  if (result.data !== undefined) return result.data
  throw new Refusal(refusalOf(result.error))
}

/** `true` for an answer without content; throws a {@link Refusal} for anything else. */
export async function done(call: Promise<{ response: Response; error?: unknown }>): Promise<true> {
  let result: { response: Response; error?: unknown }
  try {
    result = await call
  } catch {
    throw new Refusal(unreachable())
  }
  if (result.response.ok) return true
  throw new Refusal(refusalOf(result.error))
}

/** The problem a refused answer holds; silence when it holds none. */
export function refusalOf(body: unknown): Problem {
  return isProblem(body) ? body : unreachable()
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'title' in value && 'detail' in value
}

function unreachable(): Problem {
  return {
    type: 'urn:upper-lobe:problem:no-answer',
    title: 'no answer',
    status: 0,
    detail:
      'The server does not answer. Your edits are kept in this tab; start it again and carry on.',
  }
}
