import { Tooltip } from 'antd'
import type { ReactNode } from 'react'
import { useGlossary } from './useGlossary'

/** A word of the trade that explains itself on hover and focus. */
export function Term({ word, children }: { word: string; children: ReactNode }) {
  const meaning = useGlossary().data?.find((term) => term.word === word)?.meaning
  if (meaning === undefined) return <>{children}</>
  return <Tooltip title={meaning} trigger={['hover', 'focus']}><span className="term" tabIndex={0}>{children}</span></Tooltip>
}
