import { TakeSvg } from './TakeSvg'
import { useSessionPart } from '../../model/useSession'

const WIDTH = 230
const HEIGHT = 150

/** Piston at top dead centre against deck, gasket and head; heights ten times as large as widths. */
export function DeckPicture() {
  const fields = useSessionPart((state) => state.answer?.fields)
  const system = useSessionPart((state) => state.system)
  const of = (key: string) => fields?.find((f) => f.field === `engine.${key}`)
  const [deck, gasket] = [of('deck_clearance'), of('gasket_thickness')]
  const mm = (field: typeof deck) => (field?.si ?? 0) * 1e3
  const scale = 30
  const deckY = 52 + mm(gasket) * scale
  const crownY = deckY + mm(deck) * scale
  const read = (field: typeof deck) => field?.shown?.[system] ?? 'not given'
  return (
    <figure className="picture">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Deck clearance ${read(deck)}, crushed gasket ${read(gasket)}`}
      >
        <rect className="metal" x="0" y="0" width={WIDTH} height="52" />
        <path className="hollow" d="M66,52 L72,22 L138,22 L144,52 Z" />
        <rect className="gasket" x="0" y="52" width="58" height={Math.max(1, deckY - 52)} />
        <rect className="gasket" x="172" y="52" width="58" height={Math.max(1, deckY - 52)} />
        <rect className="metal" x="0" y={deckY} width="60" height={HEIGHT - deckY} />
        <rect className="metal" x="170" y={deckY} width="60" height={HEIGHT - deckY} />
        <rect className="crown" x="63" y={crownY} width="104" height={HEIGHT - crownY} />
        <line className="measure" x1="115" x2="115" y1="52" y2={crownY} />
        <text x="8" y="16">
          head
        </text>
        <text x="105" y="40" textAnchor="middle">
          {of('chamber_volume')?.text ?? ''}
        </text>
        <text x="226" y="46" textAnchor="end">
          gasket {read(gasket)}
        </text>
        <text x="226" y={HEIGHT - 24} textAnchor="end">
          block
        </text>
        <text x="115" y={HEIGHT - 30} textAnchor="middle">
          piston {read(deck)} down
        </text>
        <text x="115" y={HEIGHT - 14} textAnchor="middle">
          crown {of('piston_volume')?.text ?? ''}
        </text>
      </svg>
      <figcaption className="quiet">
        At top dead centre; heights drawn tall. <TakeSvg name="deck" />
      </figcaption>
    </figure>
  )
}
