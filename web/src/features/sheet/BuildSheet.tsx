import type { Group } from '../../model/groups'
import { fieldsOf } from '../../model/groups'
import type { FormField, LimitReport } from '../../api/client'
import { labelOf, spoken } from '../fields/labels'
import { tightestFirst, wordOf } from '../margins/order'
import { EngineAnswer } from '../engine/EngineAnswer'
import '../order/order.css'
import { Lobes } from '../order/OrderTables'
import { useOrder } from '../order/useOrder'
import { TorqueChart } from '../torque/TorqueChart'
import { useShownCurve } from '../torque/useCurve'
import { useScales } from '../torque/useScales'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { Strip } from '../strip/Strip'
import { useStripView } from '../strip/useStripView'
import './sheet.css'
import { SheetTools } from './SheetTools'
import { useRevision } from './useRevision'

interface SheetProps {
  /** Steps in their order, whose fields are printed. */
  readonly steps: readonly {
    readonly name: string
    readonly title: string
    readonly groups: readonly Group[]
  }[]
  readonly onClose: () => void
}

/** The build on paper: everything given and assumed, margins with what they need; Letter and A4. */
export function BuildSheet({ steps, onClose }: SheetProps) {
  const candidate = useCandidate()
  const fields = useSessionPart((state) => state.answer?.fields)
  const name = useSessionPart((state) => state.answer?.name)
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const revision = useRevision()
  const beside = useSessionPart((state) => state.answer?.beside)
  const strip = useStripView('sheet', true)
  const order = useOrder()
  if (!candidate || !fields) return null
  return (
    <article className="sheet">
      <SheetTools onClose={onClose} />
      <h1>{name}</h1>
      <p>
        {candidate.name}. Revision {revision}, {new Date().toLocaleDateString()}.
      </p>
      <EngineAnswer />
      {order.data && !order.isPlaceholderData ? <Lobes order={order.data} /> : null}
      <div className="sheet-strip">
        <Strip view={strip} sized={false} />
        <p className="quiet">
          Depth below the closed valve; solid: intake, dashed: exhaust, thin: running lift
          {beside ? `, dotted: ${beside.name}` : ''}.
        </p>
      </div>
      <Curve />
      <h2>Margins</h2>
      <MarginTable limits={tightestFirst(candidate.limits)} />
      {steps.map((step) =>
        step.groups.map((group) => {
          const own = fieldsOf(group, fields, index).filter(
            (f) => (f.applies && f.text !== '') || (f.table?.rows.length ?? 0) > 0,
          )
          return own.length === 0 ? null : (
            <Given
              key={`${step.name} ${group.title}`}
              title={`${step.title}: ${group.title}`}
              fields={own}
            />
          )
        }),
      )}
      <p className="caution">
        A planning aid. Maker's instructions and a competent machinist's measurement stand above
        every figure here. Turn the engine by hand only, plugs or injectors out, when checking
        clearances; compress springs only with a proper compressor and eye protection; break in flat
        cams with reduced load, the right oil, without idling. Changing camshafts or emission
        controls on a road vehicle can be unlawful: check local rules and use licensed
        professionals.
      </p>
    </article>
  )
}

/** Torque and power, where they are computed. */
function Curve() {
  const shown = useShownCurve(undefined)
  const scales = useScales()
  if (!shown.curve || !scales) {
    return (
      <p className="quiet">
        {shown.failed ? `No torque curve: ${shown.failed.reason}.` : `Torque: ${shown.doing}…`}
      </p>
    )
  }
  return (
    <TorqueChart curve={shown.curve} before={undefined} others={NONE} scales={scales} at={-1} />
  )
}

const NONE: readonly never[] = []

function MarginTable({ limits }: { limits: readonly LimitReport[] }) {
  const system = useSessionPart((state) => state.system)
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">Limit</th>
          <th scope="col">Need</th>
          <th scope="col">Have</th>
          <th scope="col">Left over</th>
          <th scope="col">Verdict</th>
        </tr>
      </thead>
      <tbody>
        {limits.map((limit) => (
          <tr key={`${limit.id}${limit.side ?? ''}`}>
            <th scope="row">{limit.title}</th>
            <td>{limit.shown ? `${wordOf(limit.need)} ${limit.shown.need[system]}` : ''}</td>
            <td>{limit.shown?.have[system] ?? 'unknown'}</td>
            <td>{limit.shown?.margin[system] ?? ''}</td>
            <td className={limit.verdict}>{limit.verdict}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Given({ title, fields }: { title: string; fields: readonly FormField[] }) {
  return (
    <section>
      <h2>{title}</h2>
      <dl>
        {fields.map((field) => (
          <div key={field.field}>
            <dt>{labelOf(field)}</dt>
            <dd>
              {field.table
                ? field.table.rows.map((row) => row.join(' ')).join('; ')
                : spoken(field.text)}{' '}
              <span className="quiet">{field.source === 'unmarked' ? '' : field.source}</span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
