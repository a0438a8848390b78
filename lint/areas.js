import { readdirSync } from 'node:fs';

/** The folders of docs/architecture.md and whom each may import: one way only. */
const allowed = {
  core: [],
  contract: ['core/units'],
  store: ['contract', 'core'],
  recorder: ['store', 'contract', 'core'],
  server: ['instrument', 'recorder', 'store', 'contract', 'core'],
  web: ['contract', 'core'],
  instrument: ['recorder', 'contract', 'core'],
  simulator: ['instrument', 'contract'],
  cli: ['contract', 'core'],
  launch: ['store', 'contract'],
  operations: ['launch', 'store', 'contract', 'core'],
  bench: ['contract', 'core', 'launch'],
  // Only the server's test peers and the stand-ins; the page itself is driven from outside.
  e2e: ['contract', 'core', 'cli', 'launch', 'instrument', 'recorder', 'server', 'simulator', 'store'],
  lint: [],
};

/** The folders of core beside those that an area may import. */
const restOfCore = (granted) =>
  readdirSync('core', { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && !granted.includes(`core/${entry.name}`))
    .map((entry) => entry.name);

/** The import patterns that one folder may not name. @returns patterns for `no-restricted-imports` */
function forbiddenTo(area) {
  const granted = allowed[area];
  return Object.keys(allowed)
    .filter((other) => other !== area && !granted.includes(other))
    .map((other) => {
      const partly = other === 'core' && granted.some((path) => path.startsWith('core/'));
      return {
        regex: `^(\\.\\./)+${other}/${partly ? `((${restOfCore(granted).join('|')})/|[^/]+$)` : ''}`,
        message: `${area} must not import ${other}: imports run one way (see docs/architecture.md).`,
      };
    });
}

/** The core is pure: no interface, no machine. */
const machines = ['node:*', 'react*', '@mantine/*', 'pg', 'express', 'chart.js', 'zustand'];
const units = {
  regex: '^\\.\\./',
  message: 'core/units must not import core: contract needs it, and nothing else of core.',
};

const restricted = (patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });

/** One override for each folder; core's tests may use the machine, core/units stands alone. */
export const areaOverrides = [
  ...Object.keys(allowed).map((area) => ({
    files: [`${area}/**/*.{ts,tsx}`],
    rules: restricted(forbiddenTo(area)),
  })),
  {
    files: ['core/**/*.ts'],
    excludeFiles: ['core/**/*.test.ts', 'core/testing/**'],
    rules: restricted([
      { group: machines, message: 'The core has no interface and no machine.' },
      ...forbiddenTo('core'),
    ]),
  },
  {
    files: ['core/units/**/*.ts'],
    excludeFiles: ['core/**/*.test.ts'],
    rules: restricted([{ group: machines, message: 'The core has no interface and no machine.' }, units]),
  },
];
