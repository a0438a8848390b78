import { packageFiles } from './jest.packages.mjs';

/** Files of tests that are run by themselves where others are run together (launch/tests-together.ts). */
const alone = (process.env.SUVOK_TESTS_ALONE ?? '').split(' ').flatMap((file) => (file ? [`<rootDir>/${file}`] : []));

/**
 * Unit and API tests. The API tests need SUVOK_TEST_DATABASE_URL, a PostgreSQL
 * in which they may create databases; `npm test` starts one and sets it.
 */
export default {
  // One more than processors: the server's tests wait a fifth of their time.
  maxWorkers: 3,
  // What was translated is kept; what tests write is not.
  cacheDirectory: '<rootDir>/node_modules/.cache/jest',
  testMatch: process.env.SUVOK_TESTS_TOGETHER
    ? ['<rootDir>/dist/tests-together/*.test.ts', ...alone]
    : [
        '<rootDir>/{core,contract,cli,simulator,launch,instrument,recorder,operations,server,store,web}/**/*.test.{ts,tsx}',
      ],
  testSequencer: '<rootDir>/jest.sequencer.cjs',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '<rootDir>/jest.transform.cjs',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true },
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
    '/dist/packages-of-tests/.+\\.js$': '<rootDir>/jest.transform.cjs',
  },
  globalSetup: '<rootDir>/jest.packages.mjs',
  // Components are tested with the names of their classes.
  moduleNameMapper: { '\\.module\\.css$': '<rootDir>/web/testing/css-names.ts', ...packageFiles },
  testEnvironment: 'node',
  // No test is red for being slow: what never comes is what a limit is for.
  testTimeout: 300_000,
};
