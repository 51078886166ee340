import { useState } from 'react'
import type { CandidateReport } from '../../api/client'
import { plain, readLength } from '../../model/figures'
import { useCandidate, useLengthScale } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import { nearestTo } from '../charts/series'
import { Needs } from '../fields/Needs'
import type { Fall } from './atSpeed'
import { fallOf, schoolsOf } from './atSpeed'
import { Marks, OtherGaps } from './OtherGaps'
import { Waterfall } from './Waterfall'

type AtSpeed = Extract<CandidateReport['at_speed'], { state: 'done' }>
type Scale = NonNullable<ReturnType<typeof useLengthScale>>

/** What is left of both gaps at speed, term by term, and over speed. */
export function GapAtSpeed() {
  const report = useCandidate()?.at_speed
  const scale = useLengthScale()
  const [at, setAt] = useState<number>()
  if (report?.state === 'failed')
    return <Needs what="Gaps at speed are known" reason={report.reason} needs={report.needs} />
  if (report?.state !== 'done' || !scale) return null
  const last = report.speed_rpm.length - 1
  const place = Math.min(at ?? last, last)
  const falls = { intake: fallOf(report.intake, place), exhaust: fallOf(report.exhaust, place) }
  return (
    <section aria-label="Valve to piston at speed">
      <p className="answer">{says(falls, report, place, scale)}</p>
      <Waterfall
        atRest={{ intake: report.intake.at_rest_mm, exhaust: report.exhaust.at_rest_mm }}
        falls={falls}
        scale={scale}
      />
      <p className="quiet">
        Terms in quiet letters are assumed: a name leads to its field, a measured one replaces it. A
        gap at speed is computed, never seen: clay and dial come first.
      </p>
      <Marks marks={[...report.intake.marks, ...report.exhaust.marks]} scale={scale} />
      <Chart
        label="Gap between valve and piston over speed"
        name="gap-at-speed"
        height={170}
        curves={curvesOf(report, scale)}
        x={{ unit: 'rpm' }}
        y={{ unit: scale.unit }}
        at={report.speed_rpm[place] ?? 0}
        onAt={(rpm) => setAt(nearestTo(rpm, report.speed_rpm))}
      />
      <OtherGaps report={report} place={place} scale={scale} />
    </section>
  )
}

/** What is left at a speed, and what two schools make of it, in sentences. Pure. */
function says(
  falls: Readonly<Record<'intake' | 'exhaust', readonly Fall[]>>,
  report: AtSpeed,
  place: number,
  scale: Scale,
): string {
  const read = (mm: number) => readLength(mm, scale)
  const [intake, exhaust] = [schoolsOf(falls.intake), schoolsOf(falls.exhaust)]
  if (!intake || !exhaust) return ''
  const rpm = plain(report.speed_rpm[place] ?? 0)
  return (
    `At ${rpm} rpm ${read(intake.counted)} is left on the intake and ${read(exhaust.counted)} on the exhaust, with what the ` +
    `late cam and the giving train change. Every allowance added and nothing given back: ` +
    `${read(intake.added)} and ${read(exhaust.added)}. ` +
    (report.has_budget
      ? 'The first is right once drive, train and terms are known, as here; the second where they are not.'
      : 'The second is right while terms are assumed, as here: the first needs a growth budget, every term given or a mark of a running engine.')
  )
}

/** Both gaps and the crown's to the head over speed. Pure. */
function curvesOf(report: AtSpeed, scale: Scale): Curve[] {
  const points = (mm: readonly number[]) =>
    report.speed_rpm.map((rpm, i) => [rpm, ((mm[i] ?? 0) * 1e-3) / scale.factor] as const)
  return [
    { name: 'intake valve', points: points(report.intake.minimum_mm), ink: 'intake', marked: true },
    {
      name: 'exhaust valve',
      points: points(report.exhaust.minimum_mm),
      ink: 'exhaust',
      marked: true,
    },
    { name: 'piston to head', points: points(report.piston_to_head_mm), ink: 'plain' },
  ]
}
