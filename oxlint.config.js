import { areaOverrides } from './lint/areas.js';

const everywhere = {
  'no-var': 'error',
  'prefer-const': 'error',
  'prefer-rest-params': 'error',
  'prefer-spread': 'error',
  eqeqeq: 'error',
  'no-console': ['error', { allow: ['error'] }],
  'no-unused-vars': 'error',
  'no-unused-expressions': 'error',
  'no-array-constructor': 'error',
  'typescript/ban-ts-comment': 'error',
  'typescript/no-duplicate-enum-values': 'error',
  'typescript/no-empty-object-type': 'error',
  'typescript/no-explicit-any': 'error',
  'typescript/no-extra-non-null-assertion': 'error',
  'typescript/no-misused-new': 'error',
  'typescript/no-namespace': 'error',
  'typescript/no-non-null-asserted-optional-chain': 'error',
  'typescript/no-require-imports': 'error',
  'typescript/no-this-alias': 'error',
  'typescript/no-unnecessary-type-constraint': 'error',
  'typescript/no-unsafe-declaration-merging': 'error',
  'typescript/no-unsafe-function-type': 'error',
  'typescript/no-wrapper-object-types': 'error',
  'typescript/prefer-as-const': 'error',
  'typescript/prefer-namespace-keyword': 'error',
  'typescript/triple-slash-reference': 'error',
  'typescript/consistent-type-imports': 'error',
};

/** Rules that need types: a promise nobody waits for, a case nobody thought of. */
const ofTypes = {
  'typescript/no-floating-promises': 'error',
  'typescript/no-misused-promises': 'error',
  // A sentence with quantities in it is written for its reader, never put into a text as it is.
  'typescript/no-base-to-string': 'error',
  'typescript/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
};

/** The core has no clock and no chance; what is of a browser or of a process is not there either. */
const pure = {
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
  'no-restricted-properties': ['error', { object: 'Math', property: 'random' }, { object: 'Date', property: 'now' }],
};

const ofReact = Object.fromEntries(
  [
    'rules-of-hooks',
    'exhaustive-deps',
    'static-components',
    'use-memo',
    'preserve-manual-memoization',
    'incompatible-library',
    'immutability',
    'globals',
    'refs',
    'set-state-in-effect',
    'error-boundaries',
    'purity',
    'set-state-in-render',
    'unsupported-syntax',
  ].map((rule) => [`react/${rule}`, 'error']),
);

/** What `npm run lint` refuses, types included. Each folder's imports: lint/areas.js. */
export default {
  plugins: ['typescript', 'react'],
  jsPlugins: ['./lint/absence.js', './lint/formatting.js'],
  categories: { correctness: 'off' },
  ignorePatterns: ['dist', 'data', 'coverage', 'test-results', 'playwright-report'],
  rules: { ...everywhere, ...ofTypes, 'suvok-formatting/formatted': 'error' },
  overrides: [
    ...areaOverrides,
    { files: ['core/**/*.ts'], excludeFiles: ['core/**/*.test.ts', 'core/testing/**'], rules: pure },
    {
      files: ['**/*.{ts,tsx}'],
      excludeFiles: ['**/*.test.{ts,tsx}', '**/testing/**', 'e2e/**', 'bench/**'],
      rules: { 'suvok/no-hidden-absence': 'error' },
    },
    { files: ['web/**/*.{ts,tsx}'], rules: ofReact },
    { files: ['launch/**', 'cli/**', 'bench/**', 'simulator/**'], rules: { 'no-console': 'off' } },
    // Read by Nodes too old for anything newer, which it then says.
    { files: ['**/*.cjs'], rules: { 'typescript/no-require-imports': 'off', 'no-var': 'off' } },
  ],
};
