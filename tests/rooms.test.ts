import { ESLint } from 'eslint'
import { describe, expect, it } from 'vitest'

// Where CI is set, the parser otherwise takes the file from disk instead of the line it is given.
const READ_THE_LINE = {
  files: ['**/*.{ts,tsx}'],
  languageOptions: { parserOptions: { disallowAutomaticSingleRunInference: true } },
}

/** Runs the project's own lint rules over a line, as if it stood in a file of some room. */
async function rulesBroken(filePath: string, code: string): Promise<(string | null)[]> {
  const [result] = await new ESLint({ overrideConfig: READ_THE_LINE }).lintText(code, { filePath })
  return (result?.messages ?? []).map((message) => message.ruleId)
}

const importing = (what: string, from: string) => `import { ${what} } from '${from}'\nvoid ${what}\n`

describe('the rooms', () => {
  it('let nobody import against the arrows, inside the server neither', async () => {
    const forbidden = [
      ['core/units/quantity.ts', importing('log', '../../server/log')],
      ['contract/problem.ts', importing('log', '../server/log')],
      ['web/parts/api.ts', importing('log', '../../server/log')],
      ['server/log.ts', importing('queryClient', '../web/app/queryClient')],
      ['server/db/anyOf.ts', importing('walk', '../engine/walk')],
      ['server/engine/walk.ts', importing('anyOf', '../db/anyOf')],
      ['server/facts/volumes.ts', importing('volumeMedium', '../media/mediumOf')],
      ['server/http/context.ts', importing('copyTree', '../engine/copy')],
      ['server/http/context.ts', importing('JOBS', '../jobs/registry')],
      ['server/http/context.ts', "import type { Observer } from '../observer/observer'\nexport type Kept = Observer\n"],
      ['server/media/mediumOf.ts', importing('BenchPlaces', '../bench/benchPlaces')],
    ] as const
    for (const [file, code] of forbidden)
      expect(await rulesBroken(file, code), `${file}: ${code}`).toContain('boundaries/dependencies')
    const node = await rulesBroken('core/units/quantity.ts', importing('join', 'node:path'))
    expect(node).toContain('no-restricted-imports')
  })

  it('let everybody import along them', async () => {
    expect(await rulesBroken('web/parts/api.ts', importing('evenFloor', '../../core/units/frameSize'))).toEqual([])
    expect(await rulesBroken('server/facts/volumes.ts', importing('anyOf', '../db/anyOf'))).toEqual([])
    expect(await rulesBroken('server/http/context.ts', importing('startTask', '../enqueue/enqueue'))).toEqual([])
  })
})
