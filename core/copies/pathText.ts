/**
 * Bytes of a path as printable text: valid UTF-8 stays, control characters, backslashes and stray bytes become
 * `\n`, `\\` or `\xff`. Two different paths never print alike.
 */
export function printablePath(bytes: Uint8Array): string {
  const decoder = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true })
  try {
    return escapeControls(decoder.decode(bytes))
  } catch {
    return printInvalid(bytes)
  }
}

/**
 * A printed path in which what stands for control characters, backslashes and stray bytes is a space: `two\\nlines` is
 * `two lines`.
 */
export const withoutEscapes = (printed: string): string => printed.replace(/\\(?:[nrt\\]|x[0-9a-f]{2})/g, ' ')

const NAMED: Record<number, string> = { 10: '\\n', 13: '\\r', 9: '\\t', 92: '\\\\' }
const hex = (value: number) => `\\x${value.toString(16).padStart(2, '0')}`
const CONTROLS = /[\u0000-\u001f\u007f\\]/g

const escapeControls = (text: string) =>
  text.replace(CONTROLS, (sign) => NAMED[sign.charCodeAt(0)] ?? hex(sign.charCodeAt(0)))

function printInvalid(bytes: Uint8Array): string {
  let out = ''
  for (let at = 0; at < bytes.length;) {
    const length = sequenceLength(bytes, at)
    out +=
      length === 0
        ? hex(bytes[at] ?? 0)
        : escapeControls(new TextDecoder('utf-8', { ignoreBOM: true }).decode(bytes.subarray(at, at + length)))
    at += Math.max(1, length)
  }
  return out
}

/** Length of the valid UTF-8 sequence at `at`, 0 when there is none. */
function sequenceLength(bytes: Uint8Array, at: number): number {
  for (let length = 1; length <= 4 && at + length <= bytes.length; length += 1) {
    try {
      new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes.subarray(at, at + length))
      return length
    } catch {
      // not yet a whole sequence
    }
  }
  return 0
}
