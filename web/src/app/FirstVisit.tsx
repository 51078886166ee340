import { Alert, Button } from 'antd'
import { useState } from 'react'
import { keep, kept } from '../model/keep'
import { useSessionPart } from '../model/useSession'

const KEY = 'upper-lobe.visited'

/** What a first visit shows, and how one begins one's own; gone once it was closed or anything was changed. */
export function FirstVisit({ onBegin }: { onBegin: () => void }) {
  const [visited, setVisited] = useState(() => kept(KEY) !== null)
  const changed = useSessionPart((state) => state.history.past.length > 0)
  if (visited || changed) return null
  const leave = () => {
    keep(KEY, 'yes')
    setVisited(true)
  }
  return (
    <Alert
      type="info"
      title="This is an invented demo build: drag its events, change anything, undo it. No real engine is behind it."
      closable={{ 'aria-label': 'Close this note', onClose: leave }}
      action={
        <Button
          size="small"
          type="primary"
          onClick={() => {
            leave()
            onBegin()
          }}
        >
          Begin your own
        </Button>
      }
    />
  )
}
