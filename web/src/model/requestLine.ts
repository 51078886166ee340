interface Waiting<T> {
  readonly request: () => Promise<T>
  readonly droppable: boolean
}

/**
 * Runs one request at a time, in order. Of droppable requests that wait in a row only the newest is
 * made: a drag asks faster than answers come, and only its last place matters. Others are never
 * dropped.
 */
export class RequestLine<T> {
  private running = false
  private waiting: Waiting<T>[] = []
  private readonly done: (value: T) => void
  private readonly failed: (error: unknown) => void

  constructor(done: (value: T) => void, failed: (error: unknown) => void) {
    this.done = done
    this.failed = failed
  }

  ask(request: () => Promise<T>, droppable = false): void {
    if (this.waiting.at(-1)?.droppable) this.waiting.pop()
    this.waiting.push({ request, droppable })
    if (!this.running) void this.run()
  }

  /** A listener that fails itself must not stop the line. */
  private tell(error: unknown): void {
    try {
      this.failed(error)
    } catch (fault) {
      console.error(fault)
    }
  }

  private async run(): Promise<void> {
    this.running = true
    for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
      try {
        this.done(await next.request())
      } catch (error) {
        this.tell(error)
      }
    }
    this.running = false
  }
}
