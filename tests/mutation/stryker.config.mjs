/**
 * The folder of core whose lines are changed one by one, and the share of changes that its tests must notice, in
 * percent.
 */
const [folder, least] = [process.env.YENDRA_MUTATE ?? 'core/storage', Number(process.env.YENDRA_MUTATE_LEAST ?? 85)]

// Walks that say themselves how often they turn are as short as those of `fewerRuns.ts`.
process.env.YENDRA_RUNS ??= '16'

export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'tests/mutation/vitest.config.ts' },
  mutate: [`${folder}/**/*.ts`, '!core/**/*.test.ts', '!core/**/test*.ts'],
  // What a sentence says is read by people; that one is said at all is in the other mutations.
  mutator: { excludedMutations: ['StringLiteral'] },
  coverageAnalysis: 'perTest',
  concurrency: 2,
  incremental: true,
  incrementalFile: `.yendra-mutation/${folder.replaceAll('/', '-')}.json`,
  jsonReporter: { fileName: `.yendra-mutation/${folder.replaceAll('/', '-')}-report.json` },
  tempDirName: '.yendra-mutation/tmp',
  reporters: ['clear-text', 'json'],
  clearTextReporter: { allowColor: false, logTests: false, allowEmojis: false },
  thresholds: { high: 100, low: least, break: least },
}
