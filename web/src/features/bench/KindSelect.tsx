import { Select } from 'antd'
import { KINDS } from './sessions'

interface Props {
  readonly kind: string
  readonly isLarge?: boolean
  readonly onKind: (kind: string) => void
}

/** What is to be measured. */
export function KindSelect({ kind, isLarge = false, onKind }: Props) {
  return (
    <Select
      aria-label="What is measured"
      size={isLarge ? 'large' : 'middle'}
      value={kind}
      options={[...KINDS]}
      popupMatchSelectWidth={false}
      listHeight={420}
      onChange={onKind}
    />
  )
}
