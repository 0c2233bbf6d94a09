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

describe('the rooms', () => {
  it('let nobody import against the arrows', async () => {
    const forbidden = [
      ['core/units/quantity.ts', "import { log } from '../../server/log'\nlog.info('')\n"],
      ['contract/problem.ts', "import { log } from '../server/log'\nlog.info('')\n"],
      ['web/parts/api.ts', "import { log } from '../../server/log'\nlog.info('')\n"],
      ['server/log.ts', "import { queryClient } from '../web/app/queryClient'\nqueryClient.clear()\n"],
    ] as const
    for (const [file, code] of forbidden)
      expect(await rulesBroken(file, code), file).toContain('boundaries/dependencies')
    expect(await rulesBroken('core/units/quantity.ts', "import { join } from 'node:path'\njoin('')\n")).toContain(
      'no-restricted-imports',
    )
  })

  it('let everybody import along them', async () => {
    expect(
      await rulesBroken('web/parts/api.ts', "import { evenFloor } from '../../core/units/frameSize'\nevenFloor(3)\n"),
    ).toEqual([])
    expect(
      await rulesBroken('server/log.ts', "import { evenFloor } from '../core/units/frameSize'\nevenFloor(3)\n"),
    ).toEqual([])
  })
})
