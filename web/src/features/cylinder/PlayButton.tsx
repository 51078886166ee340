import { Button } from 'antd'
import { memo, useEffect, useState } from 'react'
import { scrub } from '../../model/scrub'

/** Crank degrees a second: slow enough to see a lifter climb. */
const PACE = 60

/** Turns the crank in slow motion; every picture follows. */
export const PlayButton = memo(function PlayButton() {
  const [playing, setPlaying] = useState(false)
  useEffect(() => {
    if (!playing) return undefined
    let last = performance.now()
    let frame = requestAnimationFrame(function step(now) {
      scrub.to(scrub.read() + ((now - last) / 1000) * PACE)
      last = now
      frame = requestAnimationFrame(step)
    })
    return () => {
      cancelAnimationFrame(frame)
    }
  }, [playing])
  return (
    <Button size="small" aria-pressed={playing} onClick={() => setPlaying((now) => !now)}>
      {playing ? 'Hold' : 'Turn slowly'}
    </Button>
  )
})
