import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { BeginningReport, FamilyReport, Fault, UnitSystem } from '../../api/client'
import { answered, client, Refusal } from '../../api/client'

/** What was chosen so far; what is empty is the family's likeliest. */
export interface Chosen {
  readonly name: string
  readonly family: string
  readonly heads: string
  readonly use: string
}

/** Families of engines a build may begin from. */
export function useFamilies() {
  return useQuery<FamilyReport[], Refusal>({
    queryKey: ['families'],
    queryFn: () => answered(client.GET('/api/families')),
    staleTime: Infinity,
  })
}

/** The build that would begin from what is chosen and known, computed anew with every answer; nothing is kept. */
export function useBeginning(chosen: Chosen, system: UnitSystem) {
  const [known, setKnown] = useState<Readonly<Record<string, string>>>({})
  const beginning = {
    name: chosen.name.trim() === '' ? 'A new build' : chosen.name.trim(),
    family: chosen.family,
    heads: chosen.heads === '' ? null : chosen.heads,
    use: chosen.use === '' ? null : chosen.use,
    known: Object.entries(known).map(([field, text]) => ({ field, text })),
  }
  const report = useQuery<BeginningReport, Refusal>({
    queryKey: ['begin', beginning, system],
    queryFn: () => answered(client.POST('/api/begin', { body: { beginning, system } })),
    enabled: chosen.family !== '',
    placeholderData: keepPreviousData,
    retry: false,
    // What the shop's builds foretell may change meanwhile.
    staleTime: 60_000,
  })
  // What was refused leaves the fields on screen, so that it can be mended there.
  const [last, setLast] = useState<BeginningReport>()
  if (report.data && report.data !== last) setLast(report.data)
  const faults: readonly Fault[] = report.error?.problem.faults ?? []
  return {
    report: report.data ?? last,
    faults,
    trouble: report.error && faults.length === 0 ? report.error.message : undefined,
    /** Whether what is shown answers what is chosen. */
    settled: !report.isFetching && !report.isError,
    known,
    onKnown: (field: string, text: string) => {
      setKnown((now) => {
        const rest = Object.entries(now).filter(([other]) => other !== field)
        return Object.fromEntries(text.trim() === '' ? rest : [...rest, [field, text]])
      })
    },
  }
}
