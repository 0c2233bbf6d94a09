/** What was understood of something typed, or a sentence that says what to write instead. */
export type Typed<T> = { readonly value: T } | { readonly fault: string }

/** The value where there is one. */
export const valueOf = <T>(typed: Typed<T>): T | undefined => ('value' in typed ? typed.value : undefined)

/**
 * What a typed figure may mean: one value, or a question, since people write thousands and decimals with either sign.
 */
export type TypedNumber = { readonly value: number } | { readonly ask: string }

const SPACES = /[\s\u00a0\u2009\u202f_]/g
const plain = (digits: string): TypedNumber | undefined => {
  const value = Number(digits)
  return digits !== '' && Number.isFinite(value) ? { value } : undefined
}

/**
 * Reads a figure with a decimal point or comma and thousands apart. `1.5` and `1,5` are 1.5, `1 000`, `1,000,000` and
 * `1.000,5` are what they can only be, and `1,000` or `1.000` is a question: a thousand, or one? `undefined` when it
 * is no figure.
 */
export function typedNumber(text: string): TypedNumber | undefined {
  const figure = text.replace(SPACES, '')
  if (!/^\d[\d.,]*$/.test(figure)) return undefined
  const signs = figure.replace(/\d/g, '')
  if (signs === '') return plain(figure)
  if (signs.length === 1) {
    const [before = '', after = ''] = figure.split(signs)
    if (after === '') return undefined
    if (/^[1-9]\d{0,2}$/.test(before) && after.length === 3)
      return { ask: `Does ${figure} mean ${before}${after} or ${Number(`${before}.${after}`)}? Write it so.` }
    return plain(`${before}.${after}`)
  }
  const decimal = signs.at(-1) ?? ''
  const grouping = signs[0] ?? ''
  const grouped = new RegExp(`^\\d{1,3}(\\${grouping}\\d{3})+$`)
  if ([...signs].every((sign) => sign === grouping))
    return grouped.test(figure) ? plain(figure.replaceAll(grouping, '')) : undefined
  if ([...signs.slice(0, -1)].some((sign) => sign !== grouping) || decimal === grouping) return undefined
  const [whole = '', part = ''] = figure.split(decimal)
  return grouped.test(whole) && part !== '' ? plain(`${whole.replaceAll(grouping, '')}.${part}`) : undefined
}
