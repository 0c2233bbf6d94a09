/** Counts how often a thing was found changed, whoever looked at it: by a page's question or by the watch. */
export class Observed {
  #last: string | undefined
  #changes = 0

  see(now: unknown): void {
    const text = JSON.stringify(now)
    if (this.#last !== undefined && text !== this.#last) this.#changes += 1
    this.#last = text
  }

  get changes(): number {
    return this.#changes
  }
}
