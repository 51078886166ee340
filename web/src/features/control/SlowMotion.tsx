import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { DrawingReport, FilmReport, StripReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useScrub } from '../../model/scrub'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { frameAt, GAPS, WAVES } from '../cylinder/film'
import { PlayButton } from '../cylinder/PlayButton'
import type { Lobes, Trains } from '../cylinder/Section'
import { Section, viewOf } from '../cylinder/Section'
import { useCalm } from '../cylinder/useCalm'
import { SIDES } from '../motion/useTrain'

/** Milliseconds between two films while the speed is dragged. */
const FOLLOWS = 250

/** Both trains at the speed looked at, turned slowly: gaps open and coils surge as they do there. */
export function SlowMotion({ rpm }: { rpm: number }) {
  const [shown, setShown] = useState(false)
  const candidate = useCandidate()
  const document = useSessionPart((state) => state.history.present)
  const speed = useCalm(rpm, FOLLOWS)
  const body = { document, candidate: candidate?.id ?? null, rpm: speed }
  const film = useQuery({
    queryKey: ['film', body],
    enabled: shown && candidate !== undefined,
    queryFn: () => answered(client.POST('/api/film', { body })),
    placeholderData: (before) => before,
    gcTime: 10_000,
  })
  const { drawing, strip } = candidate ?? {}
  if (!candidate || drawing?.state !== 'done' || strip?.state !== 'done') return null
  return (
    <details
      className="slow-motion"
      open={shown}
      onToggle={(event) => {
        setShown(event.currentTarget.open)
      }}
    >
      <summary>Slow motion at {Math.round(rpm)} rpm</summary>
      {film.error ? <p className="quiet">{film.error.message}</p> : null}
      {shown && film.data ? (
        <Picture
          film={film.data}
          drawing={drawing}
          strip={strip}
          lobe={candidate.lobe.state === 'done' ? candidate.lobe : undefined}
          train={candidate.train.state === 'done' ? candidate.train : undefined}
        />
      ) : null}
    </details>
  )
}

interface PictureProps {
  readonly film: FilmReport
  readonly drawing: DrawingReport
  readonly strip: StripReport
  readonly lobe: Lobes | undefined
  readonly train: Trains | undefined
}

function Picture({ film, drawing, strip, lobe, train }: PictureProps) {
  const angle = useScrub()
  const view = viewOf(drawing, train)
  return (
    <div className="cylinder">
      <div className="cylinder-head">
        <span>
          At <b>{angle.toFixed(1)}</b>, {Math.round(film.rpm)} rpm
        </span>
        <PlayButton />
      </div>
      <div className="sections">
        {SIDES.map((side) => (
          <Section
            key={side}
            {...{ side, drawing, strip, lobe, train, view }}
            frame={frameAt(film[side], angle)}
          />
        ))}
      </div>
      <p className="quiet caption">
        Ringed where the train has parted, with its real size; gaps are drawn {GAPS} times, the
        coils’ waves {WAVES} times as large as they are.
      </p>
    </div>
  )
}
