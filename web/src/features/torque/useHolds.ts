import type { CalibrationReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** Whether the document has every one of these texts already; lists go by what stands beside them. */
export function useHolds(wanted: CalibrationReport['fields'] = []): boolean {
  return useSessionPart((state) =>
    wanted.every(({ field, text }) => {
      const own = state.answer?.fields?.find((one) => one.field === field)
      return own !== undefined && (own.table !== undefined || own.text === text)
    }),
  )
}
