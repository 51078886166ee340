import { Tooltip } from 'antd'
import { memo } from 'react'
import { useGlossary } from './useGlossary'

/** A word of the trade that explains itself on hover and focus; drawn once, whatever moves around it. */
export const Term = memo(function Term({ word, children }: { word: string; children: string }) {
  const meaning = useGlossary().data?.find((term) => term.word === word)?.meaning
  if (meaning === undefined) return <>{children}</>
  return (
    <Tooltip title={meaning} trigger={['hover', 'focus']}>
      <span className="term" tabIndex={0}>
        {children}
      </span>
    </Tooltip>
  )
})
