/** Finds names of a list among the files that lie in a folder. Paths are bytes, one a character. */
export class Lookup {
  readonly #paths: ReadonlySet<string>
  #alike: Map<string, string | undefined> | undefined

  constructor(paths: Iterable<string>) {
    this.#paths = new Set(paths)
  }

  has = (path: string): boolean => this.#paths.has(path)

  /**
   * The path as it is written here: the same bytes; a carriage return or without the spaces at its end, which lists
   * lose and add; or the only one that reads alike, whatever made its accents. `undefined` where none is.
   */
  find(path: string): string | undefined {
    return [path, `${path}\r`, path.trimEnd()].find(this.has) ?? this.#byText(path)
  }

  #byText(path: string): string | undefined {
    if (!/[\u0080-\u00ff]/.test(path)) return undefined
    if (!this.#alike) {
      this.#alike = new Map()
      for (const known of this.#paths)
        if (/[\u0080-\u00ff]/.test(known)) {
          const text = textOf(known)
          this.#alike.set(text, this.#alike.has(text) ? undefined : known)
        }
    }
    return this.#alike.get(textOf(path))
  }
}

/** UTF-8, or else the code page that older lists are written in; accents in their composed form (Unicode, NFC). */
function textOf(path: string): string {
  const bytes = Uint8Array.from(path, (byte) => byte.charCodeAt(0))
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).normalize('NFC')
  } catch {
    return new TextDecoder('windows-1252').decode(bytes).normalize('NFC')
  }
}
