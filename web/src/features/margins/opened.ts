import { held } from '../../model/held'

/** The margin whose "why" stands open, by its key; also opened from afar. */
export const openedMargin = held<string | undefined>(undefined)
