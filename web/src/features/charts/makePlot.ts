import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import type { Axis, Band, Curve, Ink, Mark, Stretch } from './series'
import { boundsOf, viewOf } from './series'

export interface Asked {
  readonly element: HTMLElement
  readonly width: number
  readonly height: number
  readonly data: readonly (readonly (number | null | undefined)[])[]
  readonly curves: readonly Curve[]
  readonly bands: readonly Band[]
  readonly x: Axis
  readonly y: Axis
  readonly right: Axis | undefined
  readonly stretches: readonly Stretch[]
  readonly marks: readonly Mark[]
  readonly onPlace: (place: number | null) => void
  /** Its abscissa shows another stretch than before. */
  readonly onScaled: () => void
}

/** Where an axis stands: at the right of the plot. */
// eslint-disable-next-line @typescript-eslint/no-unsafe-enum-assignment -- its enum exists in types alone
const RIGHT: uPlot.Axis.Side = 1
const FONT = "11px 'IBM Plex Sans', system-ui, sans-serif"
const VARIABLES: Readonly<Record<Ink, string>> = {
  intake: '--intake',
  exhaust: '--exhaust',
  plain: '--ink',
  one: '--intake',
  two: '--exhaust',
  three: '--cursor',
  pulled: '--cursor',
}
/** Lines differ in stroke as well as in colour. */
const DASHES: Partial<Record<Ink, number[]>> = { exhaust: [7, 3], two: [7, 3], three: [2, 3] }

/** A chart as uPlot draws it, in the page's palette. */
export function makePlot(asked: Asked): uPlot {
  const style = getComputedStyle(document.documentElement)
  const ink = (name: string) => style.getPropertyValue(name).trim()
  const colour = (of: Ink) => ink(VARIABLES[of])
  const axis = (unit: string, more: Partial<uPlot.Axis>): uPlot.Axis => ({
    stroke: ink('--quiet'),
    font: FONT,
    labelFont: FONT,
    label: unit,
    labelSize: 16,
    labelGap: 0,
    size: 40,
    grid: { stroke: ink('--edge'), width: 1 },
    ticks: { show: false },
    values: (_, ticks) => ticks.map((tick) => (typeof tick === 'number' ? readableTick(tick) : '')),
    ...more,
  })
  const series = asked.curves.map((curve): uPlot.Series => ({
    label: curve.name,
    scale: curve.right ? 'right' : 'y',
    stroke: curve.quiet ? 'transparent' : colour(curve.ink),
    width: curve.dots ? 0 : curve.beside ? 1 : 2,
    dash: curve.beside ? [2, 3] : (DASHES[curve.ink] ?? []),
    spanGaps: true,
    points: {
      show: curve.dots === true || curve.marked === true,
      size: curve.dots ? 6 : 4,
      fill: colour(curve.ink),
    },
    ...pathsOf(curve),
  }))
  return new uPlot(
    {
      width: asked.width,
      height: asked.height,
      legend: { show: false },
      padding: [8, asked.right ? 0 : 10, 0, 0],
      scales: {
        x: { time: false, range: alongX(asked.x) },
        y: { range: upY(asked.y) },
        ...(asked.right ? { right: { range: upY(asked.right) } } : {}),
      },
      axes: [
        axis(asked.x.unit, { size: 26 }),
        axis(asked.y.unit, { scale: 'y', size: 44 }),
        ...(asked.right
          ? [
              axis(asked.right.unit, {
                scale: 'right',
                side: RIGHT,
                size: 44,
                grid: { show: false },
              }),
            ]
          : []),
      ],
      series: [{}, ...series],
      bands: asked.bands.map(({ between: [upper, lower], ink: of }) => ({
        series: [upper + 1, lower + 1] as [number, number],
        fill: faint(colour(of)),
      })),
      cursor: { drag: { x: true, y: false, uni: 20 }, points: { size: 6 }, y: false },
      hooks: {
        setScale: [
          (_, key) => {
            if (key === 'x') asked.onScaled()
          },
        ],
        drawClear: [(plot) => drawUnder(plot, asked, ink)],
        setCursor: [
          (plot) =>
            asked.onPlace(
              plot.cursor.left !== undefined && plot.cursor.left >= 0
                ? (plot.cursor.idx ?? null)
                : null,
            ),
        ],
      },
    },
    asked.data as uPlot.AlignedData,
    asked.element,
  )
}

/** Smooth lines through the computed points; none through measured ones. */
function pathsOf({ dots }: Curve): Pick<uPlot.Series, 'paths'> {
  if (dots) return { paths: () => null }
  const smooth = uPlot.paths.spline?.()
  return smooth ? { paths: smooth } : {}
}

function alongX(axis: Axis): uPlot.Range.Function {
  return (plot, low, high) =>
    viewOf(axis, [plot.data[0][0] ?? low, plot.data[0].at(-1) ?? high], [low, high])
}

/** Around the values in view: they come one after the other, and a zoom leaves some out. */
function upY(axis: Axis): uPlot.Range.Function {
  return (_, low, high) => boundsOf(axis, [low, high])
}

function faint(colour: string, share = 16): string {
  return `color-mix(in srgb, ${colour} ${share}%, transparent)`
}

/** What lies under the curves: stretches that are wanted or forbidden, and marked places. */
function drawUnder(plot: uPlot, { stretches, marks }: Asked, ink: (name: string) => string): void {
  const { ctx: pen, bbox } = plot
  pen.save()
  pen.beginPath()
  pen.rect(bbox.left, bbox.top, bbox.width, bbox.height)
  pen.clip()
  for (const { from, to, kind } of stretches) {
    const [left, right] = [plot.valToPos(from, 'x', true), plot.valToPos(to, 'x', true)]
    pen.fillStyle = kind === 'wanted' ? faint(ink('--ok'), 9) : faint(ink('--fails'), 16)
    pen.fillRect(Math.min(left, right), bbox.top, Math.abs(right - left), bbox.height)
  }
  pen.strokeStyle = ink('--quiet')
  pen.fillStyle = ink('--quiet')
  pen.font = `${11 * devicePixelRatio}px 'IBM Plex Sans', system-ui, sans-serif`
  marks.forEach(({ x, text }, line) => {
    const at = plot.valToPos(x, 'x', true)
    const beyond = at + pen.measureText(text).width + 8 > bbox.left + bbox.width
    pen.setLineDash([3, 3])
    pen.beginPath()
    pen.moveTo(at, bbox.top)
    pen.lineTo(at, bbox.top + bbox.height)
    pen.stroke()
    pen.textAlign = beyond ? 'right' : 'left'
    pen.fillText(
      text,
      at + (beyond ? -4 : 4),
      bbox.top + bbox.height - (6 + 14 * (line % 3)) * devicePixelRatio,
    )
  })
  pen.restore()
}

function readableTick(tick: number): string {
  return String(Number(tick.toPrecision(6))).replace(/^(-?)0\./, '$1.')
}
