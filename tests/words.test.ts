import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const [, retired = ''] = readFileSync('docs/glossary.md', 'utf8').split('## Words that are no longer used')
const rows = retired.split('\n').filter((line) => line.startsWith('|'))
const phrases = rows.flatMap((row) => [...(row.split('|')[3] ?? '').matchAll(/`([^`]+)`/g)].map(([, phrase]) => phrase))

/**
 * What is built: pages, and the programs whose sentences they show. Pieces of text stand in it as they are written. Only
 * whole lines of comment are left out: in a page of one line, what looks like a comment is an address.
 */
const built = ['dist/web/assets', 'dist/server'].flatMap((folder) =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.js'))
    .map((file) => ({ file, text: readFileSync(join(folder, file), 'utf8').replace(/^\s*(\/\/|\/?\*).*$/gm, '') })),
)

const capital = (phrase: string) => phrase.charAt(0).toUpperCase() + phrase.slice(1)

it('no retired word is on any screen', () => {
  expect(phrases.length).toBeGreaterThan(20)
  expect(built.some(({ text }) => text.includes('Scan the card'))).toBe(true)
  const found = built.flatMap(({ file, text }) =>
    phrases.flatMap((phrase = '') => {
      // A sentence may begin with it.
      const at = Math.max(text.indexOf(phrase), text.indexOf(capital(phrase)))
      return at < 0 ? [] : [`${file}: ${text.slice(Math.max(0, at - 40), at + 60)}`]
    }),
  )
  expect(found).toEqual([])
})
