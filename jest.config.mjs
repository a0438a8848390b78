import { packageFiles } from './jest.packages.mjs';

/**
 * Unit and API tests. The API tests need SUVOK_TEST_DATABASE_URL, a PostgreSQL
 * in which they may create databases; `npm test` starts one and sets it.
 */
export default {
  // One more than processors: the server's tests wait a fifth of their time.
  maxWorkers: 3,
  // What was translated is kept; what tests write is not.
  cacheDirectory: '<rootDir>/node_modules/.cache/jest',
  testMatch: [
    '<rootDir>/{core,contract,cli,simulator,launch,instrument,recorder,operations,server,store,web}/**/*.test.{ts,tsx}',
  ],
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
  testTimeout: 60_000,
};
