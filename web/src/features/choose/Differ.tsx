import type { UnitSystem } from '../../api/client'

interface Props {
  readonly summary: string
  /** A sentence each. */
  readonly words: readonly Record<UnitSystem, string>[]
  readonly system: UnitSystem
}

/** Where cams differ and what that does, folded away until it is asked for. */
export function Differ({ summary, words, system }: Props) {
  if (words.length === 0) return null
  return (
    <details className="folded">
      <summary>{summary}</summary>
      <ul>
        {words.map((each) => (
          <li key={each.inch}>{each[system]}</li>
        ))}
      </ul>
    </details>
  )
}
