import boundaries from 'eslint-plugin-boundaries';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The folders of docs/design and who may import whom: one way only. */
const areas = [
  'core',
  'contract',
  'store',
  'recorder',
  'server',
  'web',
  'instrument',
  'simulator',
  'cli',
  'launch',
  'operations',
  'bench',
  'e2e',
];
const allowed = {
  'core-units': ['core-units'],
  core: ['core', 'core-units'],
  contract: ['contract', 'core-units'],
  store: ['store', 'contract', 'core', 'core-units'],
  recorder: ['recorder', 'store', 'contract', 'core', 'core-units'],
  server: ['server', 'instrument', 'recorder', 'store', 'contract', 'core', 'core-units'],
  web: ['web', 'contract', 'core', 'core-units'],
  instrument: ['instrument', 'recorder', 'contract', 'core', 'core-units'],
  simulator: ['simulator', 'instrument', 'contract'],
  cli: ['cli', 'contract', 'core', 'core-units'],
  launch: ['launch', 'store', 'contract'],
  operations: ['operations', 'launch', 'store', 'contract', 'core', 'core-units'],
  bench: ['bench', 'contract', 'core', 'core-units', 'launch'],
  // Only the server's test peers; the page itself is driven from outside.
  e2e: ['e2e', 'contract', 'core', 'core-units', 'cli', 'launch', 'instrument', 'recorder', 'server', 'store'],
};

export default tseslint.config(
  { ignores: ['node_modules', 'dist', 'data', 'coverage', 'test-results', 'playwright-report'] },
  ...tseslint.configs.recommended,
  {
    // Rules that need types: a promise nobody waits for, a case nobody thought of.
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      // A sentence with quantities in it is written for its reader, never put into a text as it is.
      '@typescript-eslint/no-base-to-string': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: { alwaysTryTypes: false } },
      'boundaries/elements': [
        { type: 'core-units', pattern: 'core/units' },
        ...areas.map((area) => ({ type: area, pattern: area })),
      ],
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          message:
            '{{from.element.type}} must not import {{to.element.type}}: imports run one way (see docs/architecture.md).',
          policies: Object.entries(allowed).map(([from, allow]) => ({
            from: { element: { type: from } },
            allow: allow.map((type) => ({ to: { element: { type } } })),
          })),
        },
      ],
      'boundaries/no-unknown-dependencies': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-console': ['error', { allow: ['error'] }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/testing/**'],
    rules: {
      // The core is pure: no interface, no machine, no clock, no chance.
      'no-restricted-imports': [
        'error',
        { patterns: ['node:*', 'react*', '@mantine/*', 'pg', 'express', 'chart.js', 'zustand'] },
      ],
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'performance',
        'fetch',
        'setTimeout',
        'localStorage',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random' },
        { object: 'Date', property: 'now' },
      ],
    },
  },
  {
    // A value that may be absent is looked at; only what an index reaches is taken as there.
    files: ['**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/testing/**', 'e2e/**', 'bench/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'TSNonNullExpression > :not(MemberExpression[computed=true])',
          message: '`!` hides an absence: handle it, or let the type say that it cannot be. Only `list[index]!` stays.',
        },
      ],
    },
  },
  { files: ['web/**/*.{ts,tsx}'], plugins: { 'react-hooks': reactHooks }, rules: reactHooks.configs.recommended.rules },
  { files: ['launch/**', 'cli/**', 'bench/**', 'simulator/**'], rules: { 'no-console': 'off' } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
);
