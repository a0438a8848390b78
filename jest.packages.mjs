import { build } from 'esbuild';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/**
 * Packages of very many files: a test file loads each of them anew, and to
 * find thousands of icons took longer than most tests. Jest is given one file
 * for each, made once for a lock file; what they share is shared.
 */
const packages = [
  '@mantine/core',
  '@mantine/dropzone',
  '@mantine/form',
  '@mantine/hooks',
  '@mantine/notifications',
  '@stdlib/math-base-special-digamma',
  '@stdlib/math-base-special-trigamma',
  '@stdlib/stats-base-dists-f-cdf',
  '@stdlib/stats-base-dists-t-cdf',
  '@stdlib/stats-base-dists-t-quantile',
  '@tabler/icons-react',
  'chart.js',
  'd3-array',
  'd3-shape',
  'ml-matrix',
  'zod',
];
const project = import.meta.dirname;
const folder = join(project, 'dist', 'packages-of-tests');

const nameOf = (name) => name.replace('@', '').replace('/', '-');

/** What Jest is to take in place of each. */
export const packageFiles = Object.fromEntries(
  packages.map((name) => [`^${name}$`, join(folder, stateOfPackages(), `${nameOf(name)}.js`)]),
);

function stateOfPackages() {
  const hash = createHash('sha256');
  for (const name of ['package-lock.json', 'jest.packages.mjs']) hash.update(readFileSync(join(project, name)));
  return hash.digest('hex').slice(0, 20);
}

/** Jest's global setup. */
export default async function makePackages() {
  const made = join(folder, stateOfPackages());
  if (existsSync(made)) return;
  rmSync(folder, { recursive: true, force: true });
  const beside = `${made}.${process.pid}`;
  await build({
    absWorkingDir: project,
    entryPoints: Object.fromEntries(packages.map((name) => [nameOf(name), name])),
    outdir: beside,
    bundle: true,
    splitting: true,
    format: 'esm',
    // What a browser is given needs nothing of Node.
    platform: 'browser',
    define: { 'process.env.NODE_ENV': '"test"' },
    // There is one React, whoever asks for it.
    external: ['react', 'react-dom', 'react/jsx-runtime'],
    logLevel: 'error',
  });
  renameSync(beside, made);
}
