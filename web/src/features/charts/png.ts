import type uPlot from 'uplot'
import type { Curve } from './series'

const [PAD, LINE] = [12, 18]

/** A chart as a picture that stands by itself: its title and what each line is above it, on the page's ground. */
export async function pngOf(plot: uPlot, title: string, curves: readonly Curve[]): Promise<Blob> {
  const source = plot.ctx.canvas
  const dense = window.devicePixelRatio
  const picture = document.createElement('canvas')
  const head = (PAD + 2 * LINE) * dense
  picture.width = source.width + 2 * PAD * dense
  picture.height = source.height + head + PAD * dense
  const pen = picture.getContext('2d')
  if (!pen) throw new Error('this browser draws no pictures')
  const style = getComputedStyle(document.documentElement)
  pen.fillStyle = style.getPropertyValue('--panel')
  pen.fillRect(0, 0, picture.width, picture.height)
  pen.fillStyle = style.getPropertyValue('--ink')
  pen.font = `600 ${13 * dense}px 'IBM Plex Sans', system-ui, sans-serif`
  pen.fillText(title, PAD * dense, (PAD + 10) * dense)
  pen.font = `${11 * dense}px 'IBM Plex Sans', system-ui, sans-serif`
  const names = curves
    .filter(({ quiet }) => !quiet)
    .map(({ name, beside }) => (beside ? `${name} (dotted)` : name))
  pen.fillText(names.join(' · '), PAD * dense, (PAD + 10 + LINE) * dense)
  pen.drawImage(source, PAD * dense, head)
  return new Promise((done, failed) => {
    picture.toBlob((blob) => {
      if (blob) done(blob)
      else failed(new Error('the picture could not be made'))
    }, 'image/png')
  })
}
