/**
 * A print of texts, 53 bits as 14 hexadecimal digits: the same texts in the same order give the same print. Good
 * enough to tell lists of paths apart; no protection against anybody. Mixing after MurmurHash3's finaliser (public
 * domain).
 */
export function digestOf(texts: readonly string[]): string {
  let [a, b] = [0xdeadbeef, 0x41c6ce57]
  const mix = (code: number) => {
    a = Math.imul(a ^ code, 2654435761)
    b = Math.imul(b ^ code, 1597334677)
  }
  for (const text of texts) {
    for (let at = 0; at < text.length; at += 1) mix(text.charCodeAt(at))
    // Between texts: no code unit has this value.
    mix(0x10000)
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909)
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909)
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(16).padStart(14, '0')
}

/** A number from 0 up to 1 that a seed and a text decide: the same draw can be made again. */
export const chanceOf = (seed: string, text: string): number => parseInt(digestOf([seed, text]), 16) / 2 ** 53
