import globals from 'globals'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

/** The ideas of the core in the order of the work: each may use those before it, never those after it. */
const IDEAS = [
  'pitch',
  'chord',
  'chart',
  'analysis',
  'reharm',
  'neck',
  'voicing',
  'leading',
  'melody',
  'rhythm',
  'formats',
  'player',
  'tune',
  'practice',
  'sheet',
  'backup',
  'cli',
]
const OUTSIDE_CORE = [
  'react',
  'react-*',
  '@mui/*',
  '@emotion/*',
  'drizzle-orm*',
  'better-sqlite3',
  'tone',
  '**/app/**',
  '**/db/**',
  '**/workers/**',
  '~/*',
]

const oneWay = IDEAS.map((idea, at) => ({
  files: [`core/${idea}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: OUTSIDE_CORE, message: 'The core knows no interface and no database.' },
          ...(idea === 'cli' ? [] : [{ group: ['node:*'], message: 'Only core/cli may use Node.' }]),
          ...IDEAS.slice(at + 1).map((later) => ({
            group: [`../${later}/*`],
            message: `${idea} comes before ${later}: imports go one way.`,
          })),
        ],
      },
    ],
  },
}))

// What needs the types, promises that nobody waits for, is linted by Oxlint (.oxlintrc.json), on the compiler that checks them.
export default ts.config(
  {
    ignores: [
      'build/',
      '.react-router/',
      'node_modules/',
      'test-results/',
      'playwright-report/',
      'db/migrations/',
      'data/',
    ],
  },
  ...ts.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    plugins: { 'react-hooks': hooks },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'warn',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: ['error', 'always'],
      'no-nested-ternary': 'error',
    },
  },
  ...oneWay,
)
