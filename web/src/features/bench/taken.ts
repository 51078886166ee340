import type { BenchFinding, Edit, UnitSystem } from '../../api/client'

/** The edits that take over what readings say: of each field the surest, where the field does not already agree. Pure. */
export function takenFrom(found: readonly BenchFinding[], system: UnitSystem): Edit[] {
  return found.flatMap(({ field, says, surest, verdict }): Edit[] =>
    !says || !surest || verdict === 'agrees'
      ? []
      : [{ set: { field, text: says[system] } }, { source: { field, source: 'measured' } }],
  )
}
