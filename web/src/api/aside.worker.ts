import { askWith } from './aside'
import type { Asked } from './aside'

/** Asks the server and reads its answers beside the page, so that a drag waits for neither. */
self.onmessage = (event: MessageEvent<Asked>) => {
  void askWith(event.data).then((answer) => self.postMessage(answer))
}
