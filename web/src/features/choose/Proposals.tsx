import { Fragment, useState } from 'react'
import type { ProposalReport, UnitSystem } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { KeepButton } from '../candidates/KeepButton'
import { useScales } from '../torque/useScales'
import { percent } from './sweep'

/** Whole candidates side by side: as it stands, by the events, by the card; each with its reasons and what it breaks. */
export function Proposals({ proposals }: { proposals: readonly ProposalReport[] }) {
  const system = useSessionPart((state) => state.system)
  const scales = useScales()
  const [open, setOpen] = useState<string>()
  if (!scales) return null
  const torque = (nm: number) => `${(nm / scales.torque.factor).toFixed(0)} ${scales.torque.unit}`
  const power = (kw: number) =>
    `${((kw * 1e3) / scales.power.factor).toFixed(0)} ${scales.power.unit}`
  return (
    <table className="figures proposals">
      <thead>
        <tr>
          <th scope="col">Whole candidates, drafted</th>
          <th scope="col">Gain</th>
          <th scope="col">Average torque</th>
          <th scope="col">Peak power</th>
          <th scope="col">Limits</th>
          <th scope="col">
            <span className="unseen">Keep</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {proposals.map((proposal) => (
          <Fragment key={proposal.school}>
            <tr>
              <th scope="row">
                <Title
                  proposal={proposal}
                  system={system}
                  isOpen={open === proposal.school}
                  onOpen={() => setOpen(open === proposal.school ? undefined : proposal.school)}
                />
              </th>
              {proposal.figures ? (
                <>
                  <td>
                    {proposal.school === 'as_it_stands' ? '' : percent(proposal.gain ?? 0, 2)}
                  </td>
                  <td>{torque(proposal.figures.average_torque_nm)}</td>
                  <td>
                    {power(proposal.figures.peak_power_kw)} at{' '}
                    {proposal.figures.peak_power_rpm.toFixed(0)}
                  </td>
                  <td>
                    <Held proposal={proposal} system={system} />
                  </td>
                  <td>
                    <KeepButton name={proposal.title} candidate={proposal.candidate} />
                  </td>
                </>
              ) : (
                <td colSpan={5} className="quiet">
                  {proposal.lacks}
                </td>
              )}
            </tr>
            {open === proposal.school ? (
              <tr>
                <td colSpan={6}>
                  <Reasons proposal={proposal} system={system} />
                </td>
              </tr>
            ) : null}
          </Fragment>
        ))}
      </tbody>
    </table>
  )
}

interface TitleProps {
  readonly proposal: ProposalReport
  readonly system: UnitSystem
  readonly isOpen: boolean
  readonly onOpen: () => void
}

/** What a proposal is called, with its first numbers; opens its reasons. */
function Title({ proposal, system, isOpen, onOpen }: TitleProps) {
  if (proposal.because.length === 0) return proposal.title
  const numbers = proposal.because
    .slice(0, 4)
    .map((each) => each.value[system].replace(/ deg.*$/, ''))
  return (
    <button type="button" className="link" aria-expanded={isOpen} onClick={onOpen}>
      {proposal.title} <span className="quiet">{numbers.join(' / ')}, why</span>
    </button>
  )
}

function Reasons({ proposal, system }: { proposal: ProposalReport; system: UnitSystem }) {
  return (
    <dl className="because">
      {proposal.because.map((each) => (
        <div key={each.decision}>
          <dt>
            {each.decision} <b>{each.value[system]}</b>
          </dt>
          <dd className="quiet">
            {each.why[system]} ({each.source})
          </dd>
        </div>
      ))}
    </dl>
  )
}

/** Limits that do not hold, or how many are tight. */
function Held({ proposal, system }: { proposal: ProposalReport; system: UnitSystem }) {
  if (proposal.broken.length > 0) {
    return (
      <ul className="plain">
        {proposal.broken.map((limit) => (
          <li key={limit.title} className="fails">
            {limit.title} {limit.left[system]}
            {limit.is_broken_now ? ', as it stands too' : ''}
          </li>
        ))}
      </ul>
    )
  }
  const tight = proposal.tight.map((limit) => `${limit.title} ${limit.left[system]}`)
  return (
    <span className="ok" title={tight.join('\n')}>
      all hold{tight.length > 0 ? `, ${String(tight.length)} with little left` : ''}
    </span>
  )
}
