/**
 * What checksum lists are made with, each with the hexadecimal digits of its sum. Sources: RFC 1321 (MD5), FIPS 180-4
 * (SHA-1 and SHA-2), ISO 3309 (CRC-32); the specification of xxHash for the four of its kind.
 */
export const DIGITS = {
  crc32: 8,
  xxh32: 8,
  xxh64: 16,
  xxh3: 16,
  md5: 32,
  xxh128: 32,
  sha1: 40,
  sha224: 56,
  sha256: 64,
  sha384: 96,
  sha512: 128,
} as const

export type Algorithm = keyof typeof DIGITS

export const ALGORITHMS = Object.keys(DIGITS) as readonly Algorithm[]

export const ALGORITHM_WORDS: Readonly<Record<Algorithm, string>> = {
  crc32: 'CRC-32',
  xxh32: 'xxHash 32',
  xxh64: 'xxHash 64',
  xxh3: 'XXH3',
  md5: 'MD5',
  xxh128: 'xxHash 128',
  sha1: 'SHA-1',
  sha224: 'SHA-224',
  sha256: 'SHA-256',
  sha384: 'SHA-384',
  sha512: 'SHA-512',
}

/** What a sum without a tag may be made with, by its digits: two for 8, 16 and 32. */
export const withDigits = (digits: number): readonly Algorithm[] => BY_DIGITS.get(digits) ?? NONE

const NONE: readonly Algorithm[] = []
const BY_DIGITS: ReadonlyMap<number, readonly Algorithm[]> = new Map(
  Object.values(DIGITS).map((digits) => [digits, ALGORITHMS.filter((algorithm) => DIGITS[algorithm] === digits)]),
)

const SPELLINGS: Readonly<Record<string, Algorithm>> = {
  crc: 'crc32',
  xxhsum: 'xxh64',
  xxhash: 'xxh64',
  xxhash64: 'xxh64',
  xxhash32: 'xxh32',
  xxhash128: 'xxh128',
  xxh364: 'xxh3',
  xxh3128: 'xxh128',
  sfv: 'crc32',
}

/** `SHA256`, `sha-256`, `SHA2-256` and `MD5` alike; `undefined` for one that is not read here. */
export function algorithmCalled(name: string): Algorithm | undefined {
  const word = name
    .toLowerCase()
    .replaceAll(/[-_ ]/g, '')
    .replace(/^sha2(?=224|256|384|512)(?=\d{3}$)/, 'sha')
  return ALGORITHMS.find((algorithm) => algorithm === word) ?? SPELLINGS[word]
}

/**
 * By the name of the list: `card.md5`, `SHA256SUMS`, `sha256sum.txt`, `manifest-sha512.txt`; `undefined` where the name
 * tells nothing.
 */
export function algorithmOfList(fileName: string): Algorithm | undefined {
  const words = fileName
    .toLowerCase()
    .replace(/\.(?:txt|asc|list|lst|sums?)$/, '')
    .replace(/(?:check)?sums?$/, '')
  return algorithmCalled(/(?:^|[^a-z0-9])([a-z]+[0-9]*(?:[-_][0-9]+)?)$/.exec(words)?.[1] ?? '')
}
