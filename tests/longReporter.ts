import { appendFileSync } from 'node:fs'
import type { Reporter, TestModule } from 'vitest/node'

/** Writes down each file of tests that passed, as soon as it has: a long run that was cut goes on with the others. */
export default class LongReporter implements Reporter {
  onTestModuleEnd(module: TestModule): void {
    const log = process.env.YENDRA_LONG_LOG
    if (log && module.ok()) appendFileSync(log, `${module.relativeModuleId}\n`)
  }
}
