import type { Edit, OpenedBuild, UnitSystem } from '../api/client'
import { Refusal } from '../api/client'

/** Readings on their way to the shop's server. */
export interface Waiting {
  readonly key: string
  readonly edits: readonly Edit[]
  readonly system: UnitSystem
  /** In words, for the hand that waits. */
  readonly says: string
  /** Why the server does not take it; it stays until somebody puts it right or takes it out. */
  readonly refused?: string
}

/** What became of readings: there, kept here until the server answers, or not taken. */
export type Outcome = 'arrived' | 'waits' | { readonly refused: string }

/** What the device keeps by itself; a browser may forbid it. */
export interface Shelf {
  readonly length: number
  key: (place: number) => string | null
  getItem: (key: string) => string | null
  setItem: (key: string, value: string) => void
  removeItem: (key: string) => void
}

/** The server is asked again after so long, ms. */
const AGAIN = 2_500

/**
 * Readings of one build that wait in this device while the connection is lost, and arrive once, in the order they were taken: each
 * has a key of its own by which the server knows it again. They outlive a reload of the page.
 */
export class Outbox {
  private readonly place: string
  private readonly send: (waiting: Waiting) => Promise<OpenedBuild>
  private readonly arrived: (opened: OpenedBuild) => Promise<void>
  private readonly shelf: Shelf | undefined
  private items: readonly Waiting[]
  private listeners = new Set<() => void>()
  private sending: Promise<void> | undefined
  private timer: ReturnType<typeof setTimeout> | undefined
  /** Whether the server did not answer when it was last asked. */
  private away = false

  constructor(
    build: number,
    shelf: Shelf | undefined,
    send: (waiting: Waiting) => Promise<OpenedBuild>,
    arrived: (opened: OpenedBuild) => Promise<void>,
  ) {
    this.place = `upper-lobe.waiting.${String(build)}.`
    this.shelf = shelf
    this.send = send
    this.arrived = arrived
    this.items = keptAt(shelf, this.place)
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  readonly read = (): readonly Waiting[] => this.items

  readonly isAway = (): boolean => this.away

  /** Sends edits, or keeps them until they can be sent; tells which, once the server was asked. What it refuses is not kept. */
  async put(
    edits: readonly Edit[],
    system: UnitSystem,
    says: string,
    now: number,
  ): Promise<Outcome> {
    const key = `${String(now).padStart(14, '0')}-${crypto.randomUUID()}`
    this.set([...this.items, { key, edits, system, says }])
    // Another one may be on its way: it asks for this one too, when it is done.
    await this.flush()
    await this.flush()
    const own = this.items.find((item) => item.key === key)
    if (own?.refused === undefined) return own ? 'waits' : 'arrived'
    this.drop(key)
    return { refused: own.refused }
  }

  /** Takes one out that was not sent, or not taken. */
  drop(key: string): void {
    this.set(this.items.filter((item) => item.key !== key))
  }

  /** Sends what waits, in order, until nothing does or nobody answers. */
  flush(): Promise<void> {
    this.sending ??= this.run().finally(() => {
      this.sending = undefined
    })
    return this.sending
  }

  /** Nothing is asked by itself any more; what waits is kept. */
  rest(): void {
    clearTimeout(this.timer)
  }

  private async run(): Promise<void> {
    clearTimeout(this.timer)
    for (let next = this.next(); next; next = this.next()) {
      const { key } = next
      try {
        // It waits until what it came to is on screen; sent again meanwhile, it is there already.
        await this.arrived(await this.send(next))
        this.away = false
        this.drop(key)
      } catch (error) {
        const refusal = error instanceof Refusal ? error.problem : undefined
        if (refusal && isFinal(refusal.status)) {
          this.away = false
          this.set(
            this.items.map((item) =>
              item.key === key ? { ...item, refused: refusal.detail } : item,
            ),
          )
          continue
        }
        this.away = true
        this.set([...this.items])
        this.timer = setTimeout(() => void this.flush(), AGAIN)
        return
      }
    }
  }

  private next(): Waiting | undefined {
    return this.items.find((item) => item.refused === undefined)
  }

  private set(items: readonly Waiting[]): void {
    const before = this.items
    this.items = items
    try {
      const gone = before.filter((item) => !items.some(({ key }) => key === item.key))
      gone.forEach((item) => this.shelf?.removeItem(this.place + item.key))
      items.forEach((item) => this.shelf?.setItem(this.place + item.key, JSON.stringify(item)))
    } catch {
      // A full or forbidden shelf: they wait as long as this page is open.
    }
    this.listeners.forEach((listener) => listener())
  }
}

/** What a page before this one left behind, in its order; rubbish is none. */
function keptAt(shelf: Shelf | undefined, place: string): Waiting[] {
  try {
    const keys = Array.from({ length: shelf?.length ?? 0 }, (_, at) => shelf?.key(at) ?? '')
    const own = keys.filter((key) => key.startsWith(place)).sort()
    return own.flatMap((key) => {
      const item: unknown = JSON.parse(shelf?.getItem(key) ?? 'null')
      return isWaiting(item) ? [item] : []
    })
  } catch {
    return []
  }
}

function isWaiting(item: unknown): item is Waiting {
  return (
    typeof item === 'object' && item !== null && 'key' in item && 'edits' in item && 'says' in item
  )
}

/** Whether asking again would change nothing: what is refused for what it is. A device that is shut out keeps what it has. */
function isFinal(status: number): boolean {
  return status >= 400 && status < 500 && ![401, 408, 409, 429].includes(status)
}
