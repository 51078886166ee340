import { Button } from 'antd'
import type { CalibrationReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'

interface Props {
  /** What was worked out: fields with their texts. */
  readonly fields: CalibrationReport['fields']
  readonly label: string
  /** What stands there once the document has it. */
  readonly held: string
  /** Whether it was worked out of another document than the one in view: it is not taken into that. */
  readonly isOld?: boolean
}

/** Takes what was worked out into the document in one step of undo, and says so once it is there. */
export function Take({ fields, label, held, isOld = false }: Props) {
  const session = useSession()
  const take = () => {
    session.edits(fields.map(({ field, text }) => ({ set: { field, text } })))
  }
  if (useHolds(fields)) return <span className="quiet">{held}</span>
  if (isOld)
    return (
      <span className="fault">The document was changed since: fit again before it is taken.</span>
    )
  return (
    <Button size="small" type="primary" onClick={take}>
      {label}
    </Button>
  )
}

/** Whether the document has every one of these texts already; lists go by what stands beside them. */
function useHolds(wanted: CalibrationReport['fields']): boolean {
  return useSessionPart((state) =>
    wanted.every(({ field, text }) => {
      const own = state.answer?.fields?.find((one) => one.field === field)
      return own !== undefined && (own.table !== undefined || own.text === text)
    }),
  )
}

/** Takes everything that is given under `object` out of the document; nothing where nothing is. */
export function useForget(object: string): (() => void) | undefined {
  const session = useSession()
  const given = useSessionPart((state) =>
    (state.answer?.fields ?? [])
      .filter(({ field, given }) => given && field.startsWith(`${object}.`))
      .map(({ field }) => field)
      .join(' '),
  )
  if (given === '') return undefined
  return () => {
    session.edits(given.split(' ').map((field) => ({ set: { field, text: '' } })))
  }
}
