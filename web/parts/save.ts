/** Hands text to the person as a file of that name. */
export function saveText(name: string, text: string, type: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }))
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  // The browser reads it after this turn.
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}
