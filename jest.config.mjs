import { packageFiles } from './jest.packages.mjs';

/** Files of tests that are run by themselves where others are run together (launch/tests-together.ts). */
const alone = (process.env.SUVOK_TESTS_ALONE ?? '').split(' ').flatMap((file) => (file ? [`<rootDir>/${file}`] : []));

/** Mutants are tried in a copy of the project, with the tests of these folders (launch/mutants.ts). */
const folders = (process.env.SUVOK_TEST_FOLDERS ?? '').split(' ').flatMap((folder) => folder.replace(/\/$/, '') || []);
const usualFolders = 'core contract cli simulator launch instrument recorder operations server store web'.split(' ');

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
    : (folders.length > 0 ? folders : usualFolders).map((folder) => `<rootDir>/${folder}/**/*.test.{ts,tsx}`),
  testPathIgnorePatterns: ['/node_modules/', ...(process.env.SUVOK_TESTS_LEFT_OUT ?? '').split(' ').filter(Boolean)],
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
  ...(folders.length > 0 ? {} : { globalSetup: '<rootDir>/jest.packages.mjs' }),
  // Components are tested with the names of their classes.
  moduleNameMapper: {
    '\\.module\\.css$': '<rootDir>/web/testing/css-names.ts',
    ...(folders.length > 0 ? {} : packageFiles),
  },
  testEnvironment: 'node',
  // No test is red for being slow: what never comes is what a limit is for.
  testTimeout: 300_000,
};
