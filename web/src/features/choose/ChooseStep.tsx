import { useState } from 'react'
import type { BesideSetup, ChooseReport, ProposalReport, UnitSystem } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Needs } from '../fields/Needs'
import { Search } from '../search/Search'
import { useSearch } from '../search/useSearch'
import './choose.css'
import { CloudPicture } from './CloudPicture'
import { Decisions, HARDWARE, type Way } from './Decisions'
import { Differ } from './Differ'
import { Following } from './Following'
import { Proposals } from './Proposals'
import { percent } from './sweep'
import { useCurveFirst } from './useAtRest'
import { useChoose, useHardware } from './useChoose'

/** From plan and engine to the cam: what every decision gives and takes, and what both schools come to. */
export function ChooseStep() {
  const search = useSearch()
  const { report, isOld, cloud, failed, doing } = useChoose({
    isHeld: search.doing !== '',
    waits: useCurveFirst(),
  })
  const system = useSessionPart((state) => state.system)
  const [way, setWay] = useState<Way>('closing')
  const hardware = useHardware(way === HARDWARE && report !== undefined && doing === '')
  if (failed) return <Needs what="Cams are computed" reason={failed.reason} needs={failed.needs} />
  if (!report)
    return (
      <>
        <p className="quiet" role="status">
          {doing}…
        </p>
        <CloudPicture cloud={cloud} />
      </>
    )
  return (
    <>
      <p className="answer">{says(report, system, isOld || doing !== '')}</p>
      <p className="quiet" role="status">
        {isOld ? 'Of the cam as it was a moment ago; ' : ''}
        {doing === '' ? `By ${report.computed_by}. Climbed by ${report.aim}.` : `${doing}…`}
      </p>
      <div className="choose-pictures">
        <div>
          <Decisions
            way={way}
            onWay={setWay}
            decisions={report.decisions}
            card={report.card}
            hardware={hardware}
          />
        </div>
        <Following
          stands={report.stands}
          beside={hardware.map(({ stands }) => stands)}
          isOld={isOld}
        />
      </div>
      <Proposals proposals={report.proposals} />
      <Differ
        summary="Where the schools differ, and what that does"
        words={report.differ.map(({ words }) => words)}
        system={system}
      />
      <Search search={search} beside={beside(report)} />
      <p className="quiet">
        Figures of the whole candidates are drafts: all cylinders on a coarse mesh. A planning aid:
        a cam is ordered on computed limits in full, and on what was measured.
      </p>
    </>
  )
}

/** What the schools propose, to hold what a search finds against. Pure. */
function beside(report: ChooseReport): BesideSetup[] {
  return report.proposals.flatMap(({ title, candidate }) =>
    candidate ? [{ title, candidate }] : [],
  )
}

/** The best that holds every limit, in a sentence; nobody says there is none while it is looked for. Pure. */
function says(report: ChooseReport, system: UnitSystem, isLooking: boolean): string {
  const holds = ({ broken }: ProposalReport) => broken.every((limit) => limit.is_broken_now)
  const better = report.proposals
    .filter((proposal) => proposal.candidate && holds(proposal) && (proposal.gain ?? 0) > 0.0005)
    .sort((a, b) => (b.gain ?? 0) - (a.gain ?? 0))
  const best = better[0]
  if (best === undefined)
    return isLooking
      ? 'No better cam within every limit so far.'
      : 'No cam that was looked at does better within every limit: this one stands.'
  const events = best.because
    .filter(({ decision }) => / (closing|opening)$/.test(decision))
    .map(({ decision, value }) => `${decision.toLowerCase()} ${value[system].replace(' deg', '')}`)
  const by = events.length > 0 ? `: ${events.join(', ')} gives` : ' gives'
  return `${best.title}${by} ${percent(best.gain ?? 0)} within every limit.`
}
