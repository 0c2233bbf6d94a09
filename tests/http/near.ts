import fc from 'fast-check'
import type { Schema, SchemaObjectDescription } from 'yup'

const HARD_TEXTS = [
  '',
  ' ',
  '\0',
  'a\0b',
  '\ud800',
  '2026-02-30',
  '0.0001',
  '24000/0',
  '../../etc',
  '/',
  '/etc',
  '%',
  '😀'.repeat(70),
  'x'.repeat(300_000),
]
/** What a field of that name may well hold; any other one a name. */
const PLAIN: Partial<Record<string, readonly string[]>> = {
  shootOn: ['2026-11-26', ''],
  timeZone: ['Etc/UTC', 'Europe/Lisbon'],
  filmedAt: ['2026-11-26T10:00:00Z'],
  at: ['09:30'],
  rate: ['25', '24000/1001'],
  codec: ['H.264'],
}
const NAMES = ['Ribs', 'Curlew A', 'Steam box']
const HARD_NUMBERS = [0, -1, 0.5, 1e308, -1e308, 2 ** 53, Number.MIN_VALUE, 25]

const text = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.constantFrom(...HARD_TEXTS),
  fc.string({ maxLength: 20 }),
)
const number = fc.oneof(fc.integer({ min: 0, max: 1e6 }), fc.double({ noNaN: true }), fc.constantFrom(...HARD_NUMBERS))
const anything = fc.oneof(fc.jsonValue({ maxDepth: 3 }), text, number)

type Described = ReturnType<Schema['describe']>

/** A number within the bounds that the schema names. */
function bounded({ tests }: Extract<Described, { tests: unknown }>): fc.Arbitrary<number> {
  const bound = (name: 'min' | 'max') => Number(tests.find((test) => test.name === name)?.params?.[name] ?? NaN)
  const min = Math.ceil(bound('min') || 0)
  return fc.integer({ min, max: Math.min(Number.MAX_SAFE_INTEGER, Math.floor(bound('max') || min + 1000)) })
}

interface How {
  /** How often something plain is taken, against once something hard. */
  readonly plain: number
  /** Ids of things that a field names: `load` of `loadIds`. */
  readonly idsFor: (name: string) => readonly string[]
}

/** Values near what a schema wants: plain, hard, and of another kind altogether. */
function near(described: Described, how: How, name = ''): fc.Arbitrary<unknown> {
  const { plain, idsFor } = how
  const often = <T>(usual: fc.Arbitrary<T>, hard: fc.Arbitrary<T>) =>
    fc.oneof({ weight: plain, arbitrary: usual }, { weight: 1, arbitrary: hard })
  const right = (): fc.Arbitrary<unknown> => {
    if (described.type === 'object') return nearObject(described as SchemaObjectDescription, how)
    const inner = 'innerType' in described && !Array.isArray(described.innerType) ? described.innerType : undefined
    if (described.type === 'array')
      return fc.array(inner ? near(inner as Described, how, name) : anything, { maxLength: 4 })
    if (described.type === 'boolean') return fc.boolean()
    const known: readonly unknown[] = 'oneOf' in described ? described.oneOf.filter((one) => one !== null) : []
    if (described.type === 'number')
      return often(
        known.length > 0 ? fc.constantFrom(...known) : 'tests' in described ? bounded(described) : number,
        number,
      )
    const usual = [known, idsFor(name === 'before' ? 'shot' : name), PLAIN[name] ?? NAMES].find(
      (some) => some.length > 0,
    )
    return often(
      fc.constantFrom(...(usual ?? []), ...('nullable' in described && described.nullable ? [null] : [])),
      text,
    )
  }
  return often(right(), anything)
}

const nearObject = ({ fields }: SchemaObjectDescription, how: How): fc.Arbitrary<unknown> => {
  const parts = Object.entries(fields).map(([name, field]) => [name, near(field as Described, how, name)] as const)
  const whole = fc.record(Object.fromEntries(parts))
  return fc.oneof(
    { weight: 4, arbitrary: whole },
    { weight: 2, arbitrary: fc.record(Object.fromEntries(parts), { requiredKeys: [] }) },
    {
      weight: 1,
      arbitrary: fc
        .tuple(whole, fc.dictionary(fc.string({ maxLength: 8 }), anything))
        .map(([a, b]) => ({ ...b, ...a })),
    },
  )
}

/** Half of the bodies are nearly right, so that much is let in; the others are hard at every place. */
export const bodiesNear = (schema: Schema, idsFor: How['idsFor'], seed: number, count: number) =>
  [20, 1].flatMap((plain) => fc.sample(near(schema.describe(), { plain, idsFor }), { seed, numRuns: count / 2 }))
