import { numberIn, percent, signedPercent } from '../../model/figures'
import { Button } from 'antd'
import type { CalibrateLine, CalibrationReport, CurveReport } from '../../api/client'
import type { SessionState } from '../../model/state'
import { useSessionPart } from '../../model/useSession'
import type { Scales } from './chart'
import type { Asked } from '../../model/useAsked'
import { useJob, waitsFor } from '../../model/useJob'
import { inSentence } from '../fields/labels'
import { Take, useForget } from '../fields/Take'

interface Props {
  readonly scales: Scales
  /** Whether the curve on screen carries a calibration; told by the fields where there is no curve. */
  readonly curve?: CurveReport
  /** The document that a fit was asked of; kept by whoever stays while a curve comes and goes. */
  readonly fit: Asked
  /** Whether there are pulls beside the single one of the document. */
  readonly hasPulls?: boolean
}

/** The model fitted to the pulls the document holds: what it would change, and how well it then agrees. */
export function Fit({ fit, curve, scales, hasPulls = false }: Props) {
  const given = (path: string) => (state: SessionState) =>
    state.answer?.fields?.some((field) => field.field === path && field.given) ?? false
  const hasPull = useSessionPart(given('pull.points'))
  const isFitted = useSessionPart(given('calibration.remaining'))
  const isOfShop = useSessionPart(
    (state) =>
      state.answer?.fields?.some(
        ({ field, text }) => field === 'calibration.by' && text === 'shop',
      ) ?? false,
  )
  const calibrated = curve?.calibrated ?? isFitted
  const has = hasPull || hasPulls
  const { document: asked, ask, isOld } = fit
  const line = useJob<CalibrateLine>(
    '/api/calibrate',
    ['calibrate', asked],
    asked === undefined ? undefined : { document: asked },
  )
  const forget = useForget('calibration')
  if (!has && !calibrated) return null
  return (
    <section className="fit" aria-label="Calibration to the pull">
      <div className="fit-tools">
        {has ? (
          <Button size="small" disabled={line.isFetching} onClick={ask}>
            {hasPulls ? 'Fit to the pulls' : 'Fit to the pull'}
          </Button>
        ) : null}
        {forget ? (
          <Button size="small" onClick={forget}>
            Forget the calibration
          </Button>
        ) : null}
        <span className="quiet" role="status">
          {told(line.data, calibrated, isOfShop)}
        </span>
      </div>
      {line.error ? (
        <p className="fault" role="alert">
          {line.error.message}
        </p>
      ) : null}
      {line.data?.state === 'done' ? (
        <Result report={line.data.report} scales={scales} isOld={isOld} />
      ) : null}
    </section>
  )
}

function told(line: CalibrateLine | undefined, calibrated: boolean, isOfShop: boolean): string {
  if (line?.state === 'running') return `${String(line.done)} of at most ${String(line.of)} curves`
  if (line?.state === 'failed') return line.reason
  if (line?.state === 'done')
    return `error of the torque ${percent(line.report.before_error)} before, ${percent(line.report.after_error)} after`
  const waits = line && waitsFor(line, '')
  if (waits !== undefined) return waits
  if (isOfShop) return 'The model carries what the shop’s other builds foretell.'
  return calibrated
    ? 'The model carries a calibration.'
    : 'A pull is given; the model does not know it yet.'
}

interface ResultProps {
  readonly report: CalibrationReport
  readonly scales: Scales
  readonly isOld: boolean
}

function Result({ report, scales, isOld }: ResultProps) {
  const torque = (nm: number | undefined) => numberIn(nm ?? 0, scales.torque)
  const off = (nm: number | undefined, place: number) => {
    const by = (nm ?? 0) / (report.measured_nm[place] ?? 1) - 1
    return signedPercent(by)
  }
  return (
    <>
      <p>
        {report.fields
          .slice(0, 4)
          .map((field) => `${inSentence(field.label)} ${field.text}`)
          .join(' · ')}{' '}
        <Take fields={report.fields} label="Take these" held="The model has these." isOld={isOld} />
      </p>
      <Explains report={report} />
      {partsOf(report).map(({ name, from, to }) => (
        <div key={name} className="wide-table">
          {report.of.length > 1 ? <h3>{name}</h3> : null}
          <table className="figures">
            <thead>
              <tr>
                <th scope="col">rpm</th>
                {report.speed_rpm.slice(from, to).map((rpm) => (
                  <th key={rpm} scope="col">
                    {Math.round(rpm)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">
                  Measured <span className="quiet">{scales.torque.unit}</span>
                </th>
                {report.measured_nm.slice(from, to).map((nm, i) => (
                  <td key={report.speed_rpm[from + i]}>{torque(nm)}</td>
                ))}
              </tr>
              <tr>
                <th scope="row">Before</th>
                {report.before_nm.slice(from, to).map((nm, i) => (
                  <td key={report.speed_rpm[from + i]}>{off(nm, from + i)}</td>
                ))}
              </tr>
              <tr>
                <th scope="row">After</th>
                {report.after_nm.slice(from, to).map((nm, i) => (
                  <td key={report.speed_rpm[from + i]}>{off(nm, from + i)}</td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      ))}
    </>
  )
}

/** Which of the speeds are of which combination. */
function partsOf({ of }: CalibrationReport): { name: string; from: number; to: number }[] {
  return of.map(({ name, speeds }, place) => {
    const from = of.slice(0, place).reduce((sum, own) => sum + own.speeds, 0)
    return { name, from, to: from + speeds }
  })
}

/** What each constant alone would make of what is off. */
function Explains({ report }: { report: CalibrationReport }) {
  return (
    <p className="quiet">
      Of {percent(report.before_error)} error,{' '}
      {report.explains
        .map(
          ({ label, text, left_error: left }) =>
            `${inSentence(label)} alone (${text}) would leave ${percent(left)}`,
        )
        .join('; ')}
      .
    </p>
  )
}
