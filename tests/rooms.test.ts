import { cruise, type ICruiseResult } from 'dependency-cruiser'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, relative } from 'node:path'
import { expect, it } from 'vitest'
import rules from '../dependency-cruiser.config.mjs'

const FORBIDDEN = [
  ['core/units/quantity.ts', 'server/log.ts'],
  ['core/units/quantity.ts', 'node:path'],
  ['contract/problem.ts', 'server/log.ts'],
  ['web/parts/asking/api.ts', 'server/log.ts'],
  ['server/log.ts', 'web/app/queryClient.ts'],
  ['server/db/names.ts', 'server/engine/copy/copy.ts'],
  ['server/engine/medium/walk.ts', 'server/db/anyOf.ts'],
  ['server/facts/volumes.ts', 'server/media/mediumOf.ts'],
  ['server/facts/rigs.ts', 'server/derived/rigs.ts'],
  ['server/http/context.ts', 'server/engine/copy/copy.ts'],
  ['server/http/context.ts', 'server/jobs/registry.ts'],
  ['server/http/app.ts', 'server/observer/observer.ts'],
  ['server/media/mediumOf.ts', 'server/bench/benchPlaces.ts'],
  ['server/jobs/runner.ts', 'tests/clear/station.ts'],
] as const
const ALLOWED = [
  ['web/parts/asking/api.ts', 'core/units/frameSize.ts'],
  ['web/parts/asking/api.ts', 'contract/cards.ts'],
  ['server/facts/volumes.ts', 'server/db/names.ts'],
  ['server/http/context.ts', 'server/enqueue/enqueue.ts'],
  ['server/programs/http.ts', 'server/bench/benchFaults.ts'],
  ['core/units/quantity.test.ts', 'node:fs'],
  ['tests/clear/station.ts', 'server/jobs/work.ts'],
] as const

/** A house of files that import nothing but what is told, each one of types, under the project's own rules. */
async function brokenIn(imports: readonly (readonly [from: string, to: string])[]): Promise<string[]> {
  const house = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-rooms-'))
  const rooms = ['core', 'contract', 'server', 'web', 'tests']
  try {
    for (const room of rooms) mkdirSync(join(house, room))
    for (const file of new Set(imports.flat())) {
      if (file.startsWith('node:')) continue
      const lines = imports
        .filter(([from]) => from === file)
        .map(([, to]) => (to.startsWith('node:') ? to : `./${relative(dirname(file), to).replace(/[.]ts$/, '')}`))
      mkdirSync(join(house, dirname(file)), { recursive: true })
      writeFileSync(
        join(house, file),
        ['export type Here = 1', ...lines.map((to, at) => `import type { Here as A${at} } from '${to}'`)].join('\n'),
      )
    }
    const { tsConfig: _, ...options } = rules.options
    const { output } = await cruise(rooms, {
      ...options,
      baseDir: house,
      validate: true,
      ruleSet: { forbidden: rules.forbidden },
    })
    return [...new Set((output as ICruiseResult).summary.violations.map(({ from, to }) => `${from} → ${to}`))]
  } finally {
    rmSync(house, { recursive: true })
  }
}

it('the rooms let everybody import along the arrows and nobody against them, inside the server neither', async () => {
  const wanted = FORBIDDEN.map(([from, to]) => `${from} → ${to.replace('node:', '')}`)
  expect((await brokenIn([...FORBIDDEN, ...ALLOWED])).sort()).toEqual(wanted.sort())
})

it('no circle of imports is let through, be it one of types alone', async () => {
  const circle = [
    ['core/a.ts', 'core/b.ts'],
    ['core/b.ts', 'core/a.ts'],
  ] as const
  expect(await brokenIn(circle)).toEqual(['core/a.ts → core/b.ts'])
})
