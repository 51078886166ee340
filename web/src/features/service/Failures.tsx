import { Button } from 'antd'
import type { ServiceReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'

type Failure = ServiceReport['failures'][number]

/** What broke, what its limit had, and a figure of the shop's own that would have warned. */
export function Failures({ report }: { report: ServiceReport }) {
  return report.failures.map((own) => <Broke key={own.id} failure={own} />)
}

function Broke({ failure }: { failure: Failure }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const { limit, at_least, at_most, reason } = failure
  const figure = at_least ?? at_most
  const hold = () => {
    if (typeof limit !== 'string') return
    session.edit({
      hold_limit: { limit, at_least: at_least ?? '', at_most: at_most ?? '', reason },
    })
  }
  return (
    <div className="broke">
      <p>
        <b>Broke:</b> {failure.says[system]}
        {failure.stands[system] === ''
          ? '. Name the limit it speaks about, and its figure can be held to.'
          : `. Of ${failure.title}, ${failure.stands[system]}.`}
      </p>
      {figure && failure.is_held ? (
        <p className="quiet">This shop holds to a figure of its own for it.</p>
      ) : null}
      {figure && !failure.is_held ? (
        <Button size="small" className="no-print" onClick={hold}>
          Hold {failure.title} to {at_least ? 'at least' : 'at most'} {figure} from now on
        </Button>
      ) : null}
    </div>
  )
}
