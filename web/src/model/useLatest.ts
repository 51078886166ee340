import { useState } from 'react'

/** The latest report of a candidate: a step of a decision does not take away what the hand works with. */
export function useLatest<Report>(
  report: Report | undefined,
  candidate: string | undefined,
): Report | undefined {
  const [latest, setLatest] = useState({ report, candidate })
  const isNewer = report !== undefined && report !== latest.report
  if (isNewer || candidate !== latest.candidate) setLatest({ report, candidate })
  return report ?? (candidate === latest.candidate ? latest.report : undefined)
}
