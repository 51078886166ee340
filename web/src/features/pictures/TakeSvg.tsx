import { download, pictureOf } from './export'

/** Takes the drawing of the figure it stands in along as SVG. */
export function TakeSvg({ name }: { name: string }) {
  return (
    <button
      type="button"
      className="link quiet no-print"
      aria-label={`${name} as SVG`}
      onClick={(event) => {
        const svg = event.currentTarget.closest('figure')?.querySelector('svg')
        if (svg) download(`${name}.svg`, pictureOf(svg), 'image/svg+xml')
      }}
    >
      SVG
    </button>
  )
}
