import { Select } from 'antd'
import { useMemo, useState } from 'react'
import { useQueries } from '@tanstack/react-query'
import type { CurveLine, CurveReport, CurveRequest } from '../../api/client'
import { Needs } from '../fields/Needs'
import { useSessionPart } from '../session/useSession'
import type { Scales } from './chart'
import { ComputedLimits } from './ComputedLimits'
import { Cycle } from './Cycle'
import { Figures } from './Figures'
import { Movers } from './Movers'
import { nearest, useSpeed } from './speed'
import { readLines } from './stream'
import { SpeedTable } from './SpeedTable'
import type { OtherCurve } from './TorqueChart'
import { TorqueChart } from './TorqueChart'
import { curveOf, useShownCurve } from './useCurve'

/** Torque and power of the candidate in view, others beside it, and one cycle at the speed looked at. */
export function TorqueStep() {
  const [level, setLevel] = useState<string>()
  const [overlaid, setOverlaid] = useState(false)
  const shown = useShownCurve(level)
  const others = useOthers(overlaid, level)
  const scales = useScales()
  const chosen = useSpeed()
  if (shown.failed) return <Needs what="Torque is computed" reason={shown.failed.reason} needs={shown.failed.needs} />
  const { curve } = shown
  if (!curve || !scales) return <p className="quiet" role="status">{shown.doing === '' ? 'Working out the first speeds…' : `${shown.doing}…`}</p>
  const at = nearest(curve.speed_rpm, chosen, curve.peak_power_rpm)
  const rpm = curve.speed_rpm[at]
  return (
    <>
      <div className="torque-tools">
        <label className="check"><input type="checkbox" checked={overlaid} onChange={(event) => { setOverlaid(event.target.checked) }} /> other candidates</label>
        {curve.level_names.length > 1 ? (
          <Select size="small" aria-label="Boost level" value={curve.level ?? ''} onChange={setLevel} options={curve.level_names.map((name) => ({ value: name, label: name }))} />
        ) : null}
        <span className="grow" />
        <span className="quiet" role="status">{shown.doing}</span>
      </div>
      <TorqueChart curve={curve} before={shown.before} others={others} scales={scales} at={at} />
      <Figures curve={curve} scales={scales} />
      <ComputedLimits limits={shown.limits} />
      <Movers />
      <SpeedTable curve={curve} at={at} />
      {shown.traces ? <Cycle trace={shown.traces.find((trace) => trace.rpm === rpm)} /> : null}
      <p className="quiet">{curve.mode}. Error: {curve.error_band}.</p>
    </>
  )
}

function useScales(): Scales | undefined {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  return useMemo(() => {
    if (!scales) return undefined
    return system === 'inch' ? { torque: scales.torque_inch, power: scales.power_inch } : { torque: scales.torque_metric, power: scales.power_metric }
  }, [scales, system])
}

/** Drafts of the other candidates, as they come. */
function useOthers(wanted: boolean, level: string | undefined): OtherCurve[] {
  const document = useSessionPart((state) => state.history.present)
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const index = useSessionPart((state) => state.answer?.candidate_index)
  const asked = wanted ? (candidates ?? []).filter((_, place) => place !== index) : []
  const found = useQueries({
    queries: asked.map((candidate) => {
      const request: CurveRequest = { document, candidate: candidate.id, effort: 'draft', level: level ?? null }
      return { queryKey: ['curve', request], staleTime: Infinity, retry: false, queryFn: ({ signal }: { signal: AbortSignal }): Promise<CurveLine> => readLines<CurveLine>('/api/curve', request, signal, () => undefined) }
    }),
  })
  return asked.flatMap((candidate, place) => {
    const curve: CurveReport | undefined = curveOf(found[place]?.data)
    return curve ? [{ name: candidate.name, curve }] : []
  })
}
