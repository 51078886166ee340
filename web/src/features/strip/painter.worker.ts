import { paintPicture } from './picture'
import type { Told } from './painter'

const sheets = new Map<number, OffscreenCanvas>()

/** Draws the strip's pictures beside the page, so that a drag does not wait for them. */
self.onmessage = ({ data }: MessageEvent<Told>) => {
  if ('sheet' in data) sheets.set(data.id, data.sheet)
  else if ('gone' in data) sheets.delete(data.id)
  else {
    const sheet = sheets.get(data.id)
    const pen = sheet?.getContext('2d')
    if (sheet && pen) paintPicture(sheet, pen, data.dense, data.ink, data.picture)
  }
}
