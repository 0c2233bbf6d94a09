import boundaries from 'eslint-plugin-boundaries'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/**
 * Who may import whom: reasons stand in the architecture notes. The first pattern that fits a file is its room.
 * Circles, those of types included, are refused by dependency-cruiser.
 */
const ROOMS = [
  { type: 'programs', pattern: 'server/programs' },
  { type: 'db', pattern: 'server/db' },
  { type: 'engine', pattern: 'server/engine' },
  { type: 'media', pattern: 'server/media' },
  { type: 'observer', pattern: 'server/observer' },
  { type: 'facts', pattern: 'server/facts' },
  { type: 'enqueue', pattern: 'server/enqueue' },
  { type: 'jobs', pattern: 'server/jobs' },
  { type: 'http', pattern: 'server/http' },
  { type: 'bench', pattern: 'server/bench' },
  { type: 'demo', pattern: 'server/demo' },
  { type: 'house', pattern: 'server' },
  { type: 'core', pattern: 'core' },
  { type: 'contract', pattern: 'contract' },
  { type: 'web', pattern: 'web' },
  { type: 'tests', pattern: 'tests' },
]

const BELOW_JOBS = ['core', 'contract', 'db', 'engine', 'media', 'observer', 'facts', 'house']
const MAY_IMPORT = {
  core: ['core'],
  contract: ['contract', 'core'],
  web: ['web', 'contract', 'core'],
  // A few lines that every room of the server needs: where things are kept, and the log.
  house: ['house'],
  db: ['db', 'core', 'contract', 'house'],
  engine: ['engine', 'core', 'house'],
  media: ['media', 'core', 'engine', 'db', 'house'],
  observer: ['observer', 'core', 'media', 'db', 'house'],
  facts: ['facts', 'core', 'contract', 'db', 'house'],
  enqueue: ['enqueue', 'core', 'contract', 'db', 'house'],
  jobs: ['jobs', 'enqueue', ...BELOW_JOBS],
  http: ['http', 'enqueue', 'core', 'contract', 'db', 'facts', 'media', 'house'],
  bench: ['bench', ...BELOW_JOBS],
  demo: ['demo', ...BELOW_JOBS],
  programs: ['programs', 'http', 'jobs', 'enqueue', 'bench', 'demo', ...BELOW_JOBS],
  tests: ROOMS.map((room) => room.type),
}

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.yendra*', 'test-results', 'playwright-report'] },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    plugins: { boundaries, 'react-hooks': reactHooks },
    languageOptions: { parserOptions: { project: './tsconfig.json', tsconfigRootDir: import.meta.dirname } },
    settings: {
      'import/resolver': { node: { extensions: ['.ts', '.tsx', '.js'] } },
      'boundaries/elements': ROOMS,
    },
    rules: {
      ...reactHooks.configs.recommended.rules,
      // Advice for a compiler that is not used here.
      'react-hooks/incompatible-library': 'off',
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: Object.entries(MAY_IMPORT).map(([from, to]) => ({
            from: { element: { type: from } },
            allow: { to: { element: { types: { anyOf: to } } } },
          })),
        },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      'max-lines': ['error', { max: 320, skipBlankLines: true }],
    },
  },
  {
    // The matchers of the test runner are typed as any.
    files: ['**/*.test.{ts,tsx}', 'tests/**/*.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      'max-lines': ['error', { max: 420, skipBlankLines: true }],
    },
  },
  {
    // Pure functions on plain data: nothing from outside the room, not even Node's own modules.
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^[^.]', message: 'core/ takes what it needs as arguments.' }] },
      ],
    },
  },
)
