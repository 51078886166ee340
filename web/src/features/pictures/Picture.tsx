import type { PictureName } from '../../model/groups'
import { useCandidate } from '../../model/useSession'
import { DeckPicture } from './DeckPicture'
import { FiringPicture } from './FiringPicture'
import { FlowPlot } from './FlowPlot'
import { PocketPicture } from './PocketPicture'
import './pictures.css'

/** The drawing beside a group of fields: where to hold the ruler. */
export function Picture({ name }: { name: PictureName }) {
  const drawing = useCandidate()?.drawing
  const known = drawing?.state === 'done' ? drawing : undefined
  switch (name) {
    case 'deck':
      return <DeckPicture />
    case 'firing':
      return <FiringPicture />
    case 'pocket-intake':
      return known ? <PocketPicture drawing={known} side="intake" /> : null
    case 'pocket-exhaust':
      return known ? <PocketPicture drawing={known} side="exhaust" /> : null
    case 'flow-intake':
      return known ? <FlowPlot valve={known.intake} side="intake" /> : null
    case 'flow-exhaust':
      return known ? <FlowPlot valve={known.exhaust} side="exhaust" /> : null
  }
}
