function save(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  // The browser reads it after this turn.
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

/** Hands text to the person as a file of that name. */
export const saveText = (name: string, text: string, type: string): void =>
  save(name, new Blob([text], { type: `${type};charset=utf-8` }))

/** Hands bytes to the person as a file of that name. */
export const saveBytes = (name: string, bytes: Uint8Array<ArrayBuffer>, type: string): void =>
  save(name, new Blob([bytes], { type }))
