import type { Frame } from './geometry'
import type { Ink, Pen, StripCurves } from './paint'
import { paintCurves, paintTrace } from './paint'

/** What is drawn anew with every step of a drag: all of it data, so that a worker can draw it. */
export type Picture =
  | {
      readonly kind: 'curves'
      readonly frame: Frame
      readonly curves: StripCurves
      readonly beside: StripCurves | undefined
    }
  | {
      readonly kind: 'trace'
      readonly frame: Frame
      readonly curves: readonly (readonly number[] | null | undefined)[]
      readonly range: { readonly least: number; readonly most: number }
    }

/** A sheet to draw on, in the page or beside it. */
interface Sheet {
  width: number
  height: number
}

/** Draws a picture over the whole of a sheet, `dense` of whose pixels make one of the page's. */
export function paintPicture(sheet: Sheet, pen: Pen, dense: number, ink: Ink, picture: Picture) {
  fit(sheet, pen, dense, picture.frame)
  if (picture.kind === 'curves')
    paintCurves(pen, picture.frame, ink, picture.curves, picture.beside)
  else paintTrace(pen, picture.frame, ink, picture.curves, picture.range)
}

/** Makes a sheet as large as the frame; one that is so already keeps its pixels' memory. */
export function fit(
  sheet: Sheet,
  pen: Pen,
  dense: number,
  frame: { width: number; height: number },
) {
  const [across, down] = [Math.round(frame.width * dense), Math.round(frame.height * dense)]
  if (sheet.width !== across || sheet.height !== down) {
    sheet.width = across
    sheet.height = down
  }
  pen.setTransform(dense, 0, 0, dense, 0, 0)
}
