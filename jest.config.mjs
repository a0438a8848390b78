/** Two projects: pure computation, and what needs PostgreSQL (started by launch/test.ts or by the setup itself). */
const shared = {
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  transform: {
    '^.+\\.tsx?$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } }, module: { type: 'es6' } },
    ],
  },
  testEnvironment: 'node',
};

export default {
  maxWorkers: 2,
  projects: [
    { ...shared, displayName: 'core', roots: ['<rootDir>/core', '<rootDir>/contract', '<rootDir>/cli', '<rootDir>/simulator', '<rootDir>/launch', '<rootDir>/web'] },
    { ...shared, displayName: 'server', roots: ['<rootDir>/server'], globalSetup: '<rootDir>/server/testing/global-setup.mjs' },
  ],
};
