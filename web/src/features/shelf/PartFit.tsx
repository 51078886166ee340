import { App, Button, Popconfirm } from 'antd'
import type { FitMargin, FitReport, ShelfPart, SideWord } from '../../api/client'
import { useState } from 'react'
import { copyName, freeId } from '../candidates/ids'
import { useSession, useSessionPart } from '../../model/useSession'
import { Choices } from './Choices'
import { Faults } from './Faults'
import { isOneSided } from './kinds'
import { useFit, useShelfWork } from './useShelf'
import { inSentence } from '../fields/labels'

interface Props {
  readonly entry: ShelfPart
  readonly readOnly: boolean
  readonly onBack: () => void
  readonly onUsed: () => void
}

type SideChoice = 'both' | SideWord

const SIDE_WORDS: Record<SideChoice, string> = {
  both: 'both sides',
  intake: 'intake',
  exhaust: 'exhaust',
}

/** One part, tried in the candidate in view before it is used. */
export function PartFit({ entry, readOnly, onBack, onUsed }: Props) {
  const { part, figures } = entry
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const candidate = candidates[index]
  const choices: readonly SideChoice[] =
    part.kind === 'cam' ? ['both'] : ['both', 'intake', 'exhaust']
  const [choice, setChoice] = useState<SideChoice>(
    isOneSided(part.kind) ? firstSide(part.name) : 'both',
  )
  const side = choice === 'both' ? undefined : choice
  const fit = useFit(part, side)
  const { message } = App.useApp()
  const { remove, refusal } = useShelfWork()
  const use = () => {
    if (!candidate) return
    session.edit({ use_part: { candidate: candidate.id, part, side: side ?? null } })
    void message.success(`${part.name} is in ${candidate.name}; Undo puts back what was there`)
    onUsed()
  }
  const useInCopy = () => {
    if (!candidate) return
    const to = freeId(candidates.map((each) => each.id))
    const name = copyName(candidate.name, part.name)
    session.edits(
      [
        { duplicate: { candidate: candidate.id, to, name } },
        { use_part: { candidate: to, part, side: side ?? null } },
      ],
      to,
    )
    session.layBeside(candidate.id)
    void message.success(`${name} is a candidate of its own, ${candidate.name} beside it`)
    onUsed()
  }
  return (
    <div className="shelf part-fit">
      <p className="part-lead">
        {[part.price, part.lead_time, part.copy_of ? `made from ${part.copy_of}` : '', part.notes]
          .filter(Boolean)
          .join(' · ')}
      </p>
      <dl className="part-facts">
        {figures.map((figure) => (
          <div key={figure.label}>
            <dt>{figure.label}</dt>
            <dd>{figure.text}</dd>
          </div>
        ))}
      </dl>
      <h3>
        In {candidate?.name ?? 'this candidate'}
        {choices.length > 1 ? ', on' : ''}
      </h3>
      {choices.length > 1 ? (
        <Choices
          label="On which side"
          options={choices.map((each) => ({ value: each, label: SIDE_WORDS[each] }))}
          value={choice}
          onChange={setChoice}
        />
      ) : null}
      {fit.error ? <Faults refusal={fit.error} /> : null}
      {fit.data ? (
        <Fit report={fit.data} />
      ) : fit.error ? null : (
        <p className="quiet">Trying it…</p>
      )}
      {refusal ? <Faults refusal={refusal} /> : null}
      <div className="part-actions">
        <Button
          type={fit.data?.verdict === 'incompatible' ? 'default' : 'primary'}
          disabled={!fit.data || Boolean(fit.error)}
          onClick={use}
        >
          {fit.data?.verdict === 'incompatible' ? 'Use it all the same' : 'Use in this candidate'}
        </Button>
        <Button disabled={!fit.data || Boolean(fit.error)} onClick={useInCopy}>
          Use in a copy
        </Button>
        <Button onClick={onBack}>Back to the shelf</Button>
        <span className="grow" />
        {readOnly ? null : (
          <Popconfirm
            title={`Remove ${part.name} from the shelf?`}
            description="Builds that used it keep what they have of it."
            okText="Remove"
            cancelText="Keep"
            onConfirm={() => {
              void remove(part).then((gone) => {
                if (gone) onBack()
              })
            }}
          >
            <Button type="text" danger>
              Remove
            </Button>
          </Popconfirm>
        )}
      </div>
    </div>
  )
}

/** A valve or lobe that names its side goes there first. */
function firstSide(name: string): SideChoice {
  return /exhaust/i.test(name) ? 'exhaust' : /intake/i.test(name) ? 'intake' : 'both'
}

function Fit({ report }: { report: FitReport }) {
  const system = useSessionPart((state) => state.system)
  return (
    <>
      <p className={`fit-verdict ${report.verdict}`} role="status">
        {verdictOf(report)}
      </p>
      {[...new Set(report.margins.flatMap((margin) => margin.why ?? []))].map((why) => (
        <p key={why} className="fault why-not">
          {why}
        </p>
      ))}
      {report.drags.length > 0 ? (
        <>
          <h3>What it drags along</h3>
          <ul className="drags">
            {report.drags.map((drag) => (
              <li key={drag.what}>
                <b>{drag.what}</b>
                <span className="quiet">{drag.why}</span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <h3>{report.margins.length > 0 ? 'Margins that move' : 'No margin moves'}</h3>
      {report.margins.length > 0 ? (
        <table className="figures moving">
          <thead>
            <tr>
              <th scope="col">Margin</th>
              <th scope="col">Left now</th>
              <th scope="col">With it</th>
              <th scope="col">Then</th>
            </tr>
          </thead>
          <tbody>
            {report.margins.map((margin) => (
              <tr key={`${margin.id} ${margin.title}`}>
                <th scope="row">{margin.title}</th>
                <td>{margin.before?.[system] ?? ''}</td>
                <td>{margin.after?.[system] ?? ''}</td>
                <td className={margin.verdict_after ?? ''}>{turnOf(margin)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <details className="folded">
        <summary>{report.changes.length} fields change</summary>
        <table className="figures moving">
          <tbody>
            {report.changes.map((change) => (
              <tr key={change.field}>
                <th scope="row">{change.label}</th>
                <td>{change.before}</td>
                <td>{change.after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </>
  )
}

/** What becomes of it, with the limit that decides. */
function verdictOf({ verdict, margins }: FitReport): string {
  if (verdict === 'incompatible') return 'Never goes together with what is there'
  if (verdict === 'fits') return 'Fits, with the work below'
  const failing = margins.filter(
    (margin) => margin.verdict_after === 'fails' && margin.verdict_before !== 'fails',
  )
  return failing.length === 0
    ? 'Fits, and leaves less than is asked'
    : `Fits, but ${failing.map(({ title }) => inSentence(title)).join(', ')} ${failing.length === 1 ? 'fails' : 'fail'} with it`
}

/** A verdict after, with the one before where it was another. */
function turnOf({ verdict_before: before, verdict_after: after }: FitMargin): string {
  if (!after) return 'no more asked'
  return before && before !== after ? `${before} → ${after}` : after
}
