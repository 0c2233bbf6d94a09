const DEEPEST = 20
const LONGEST = 20_000

/**
 * What no field of any request may be: text that PostgreSQL cannot store (NUL, half of a character), text of absurd
 * length, or values nested beyond sense; nor a field called like what every object of JavaScript has. `undefined` when
 * there is nothing of it.
 */
export function storableFault(value: unknown): { sentence: string; field: string } | undefined {
  const open: [value: unknown, field: string, depth: number][] = [[value, '', 0]]
  for (let next = open.pop(); next; next = open.pop()) {
    const [part, field, depth] = next
    if (depth > DEEPEST) return { sentence: 'The request is nested more deeply than anything here needs.', field: '' }
    if (typeof part === 'string') {
      const sentence = textFault(part)
      if (sentence) return { sentence, field }
    } else if (typeof part === 'object' && part !== null)
      for (const [name, inner] of Object.entries(part)) {
        const fault = textFault(name) ?? nameFault(name)
        if (fault) return { sentence: fault, field }
        open.push([inner, field === '' ? name : `${field}.${name}`, depth + 1])
      }
  }
  return undefined
}

function textFault(text: string): string | undefined {
  if (text.length > LONGEST) return `Keep every text under ${LONGEST} characters.`
  if (text.includes('\0')) return 'A text holds the character NUL, which cannot be stored. Leave it out.'
  if (!text.isWellFormed()) return 'A text holds half of a character. Type it again.'
  return undefined
}

const nameFault = (name: string) =>
  name in Object.prototype ? `The request has fields that are not known: ${name}.` : undefined
