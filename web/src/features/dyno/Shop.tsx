import type { ShopReport } from '../../api/client'
import { percent } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { Take } from '../fields/Take'
import { axesOf, byFamily, place } from './shrunk'
import { useShop } from './useShop'

type Build = ShopReport['builds'][number]
type Level = ShopReport['levels'][number]
type Axis = readonly [number, number]

const WIDE = 110

/** What all pulls of the shop say of the model's constants, what that is worth, and what this build may take of it. */
export function Shop() {
  const { data, error } = useShop()
  if (error)
    return (
      <p className="fault" role="alert">
        {error.message}
      </p>
    )
  if (!data) return <p className="quiet">Reading the shop’s builds…</p>
  return (
    <section className="shop" aria-label="The shop’s builds">
      <p className="answer">{data.says}</p>
      <Next next={data.next} />
      {data.builds.length > 0 ? <Builds report={data} /> : null}
      <details className="folded">
        <summary>How this is worked out</summary>
        <p className="quiet">{data.model} Nothing of it leaves this machine.</p>
      </details>
    </section>
  )
}

function Next({ next }: { next: ShopReport['next'] }) {
  if (!next) return null
  return (
    <p>
      {next.says}{' '}
      <Take fields={next.fields} label="Take these constants" held="The model has these." />
    </p>
  )
}

function Builds({ report }: { report: ShopReport }) {
  const axes = axesOf(report)
  const labels = report.levels[0]?.constants.map(({ label }) => label) ?? []
  return (
    <div className="wide-table">
      <table className="figures shop-builds" aria-label="Builds that were on the dyno">
        <thead>
          <tr>
            <th scope="col" rowSpan={2}>
              Build
            </th>
            <th scope="colgroup" colSpan={3}>
              Torque off, with constants
            </th>
            {labels.map((label) => (
              <th key={label} scope="col" rowSpan={2}>
                {label}
              </th>
            ))}
          </tr>
          <tr>
            <th scope="col">usual</th>
            <th scope="col" title="As the shop's other builds foretold it">
              of the others
            </th>
            <th scope="col">its own</th>
          </tr>
        </thead>
        {byFamily(report).map(({ level, builds }) => (
          <tbody key={level.title}>
            <FamilyRow level={level} axes={axes} />
            {builds.map((build) => (
              <BuildRow key={build.name} build={build} level={level} axes={axes} />
            ))}
          </tbody>
        ))}
        {report.gain ? (
          <tfoot>
            <tr>
              <th scope="row">All</th>
              <td>{percent(report.gain.usual)}</td>
              <td>{percent(report.gain.others)}</td>
              <td>{percent(report.gain.own)}</td>
              <td className="quiet" colSpan={labels.length}>
                ○ by its own pulls alone, ● drawn to its family; grey where the family’s next is
                expected, 95 of 100
              </td>
            </tr>
          </tfoot>
        ) : null}
      </table>
    </div>
  )
}

function FamilyRow({ level, axes }: { level: Level; axes: Axis[] }) {
  const system = useSessionPart((state) => state.system)
  return (
    <tr className="family">
      <th scope="row" colSpan={4}>
        {level.title}{' '}
        <span className="quiet">
          of {level.builds}
          {level.own ? ', as this one' : ''}: its next build
        </span>
      </th>
      {level.constants.map((own, k) => (
        <td key={own.label}>
          <Strip axis={axes[k]} expected={own} />
          <span>
            {own.value[system]} <span className="quiet">± {own.doubt[system]}</span>
          </span>
        </td>
      ))}
    </tr>
  )
}

function BuildRow({ build, level, axes }: { build: Build; level: Level; axes: Axis[] }) {
  const system = useSessionPart((state) => state.system)
  const others = build.others_error
  return (
    <tr>
      <th scope="row">{build.name}</th>
      <td>{percent(build.usual_error)}</td>
      <td>{typeof others === 'number' ? percent(others) : ''}</td>
      <td>{percent(build.own_error)}</td>
      {build.constants.map((own, k) => (
        <td key={own.label}>
          <Strip axis={axes[k]} expected={level.constants[k]} at={own.at} />
          <span className="quiet">
            {own.alone[system]} → {own.drawn[system]}
          </span>
        </td>
      ))}
    </tr>
  )
}

/** One constant on its axis: where the family's next is expected, and a build alone and drawn to it. */
function Strip({
  axis = [0, 1],
  expected,
  at,
}: {
  axis: Axis | undefined
  expected: Level['constants'][number] | undefined
  at?: readonly number[]
}) {
  const x = (value: number) => place(value, axis, WIDE)
  const [alone, drawn] = at ?? []
  return (
    <svg className="shrunk" width={WIDE} height={14} aria-hidden="true">
      {expected ? (
        <>
          <rect
            x={x(expected.at - expected.width)}
            width={x(expected.at + expected.width) - x(expected.at - expected.width)}
            y={1}
            height={12}
          />
          <line x1={x(expected.at)} x2={x(expected.at)} y1={1} y2={13} />
        </>
      ) : null}
      {alone !== undefined && drawn !== undefined ? (
        <>
          <line className="drawn" x1={x(alone)} x2={x(drawn)} y1={7} y2={7} />
          <circle className="alone" cx={x(alone)} cy={7} r={3.5} />
          <circle className="drawn" cx={x(drawn)} cy={7} r={3.5} />
        </>
      ) : null}
    </svg>
  )
}
