import boundaries from 'eslint-plugin-boundaries'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** Who may import whom: docs and reasons stand in the architecture notes. Tests may import everything. */
const ROOMS = {
  core: ['core'],
  contract: ['contract', 'core'],
  server: ['server', 'core', 'contract'],
  web: ['web', 'core', 'contract'],
  tests: ['tests', 'core', 'contract', 'server', 'web'],
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
      'boundaries/elements': Object.keys(ROOMS).map((type) => ({ type, pattern: type })),
    },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: Object.entries(ROOMS).map(([from, to]) => ({
            from: { element: { type: from } },
            allow: { to: { element: { types: { anyOf: to } } } },
          })),
        },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/restrict-template-expressions': 'off',
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      'max-lines': ['error', { max: 300, skipBlankLines: true }],
    },
  },
  {
    // The matchers of the test runner are typed as any.
    files: ['**/*.test.{ts,tsx}', 'tests/**/*.ts'],
    rules: { '@typescript-eslint/no-unsafe-assignment': 'off' },
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
