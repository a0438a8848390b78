// Plain old JavaScript: it runs before anything of TypeScript can.
'use strict';
const { createHash } = require('node:crypto');
const fs = require('node:fs');
const path = require('node:path');
const { pathToFileURL } = require('node:url');

const project = path.resolve(__dirname, '..');
/** Every file that is run by itself, as a process or as a thread. */
const entries = [
  'bench/main.ts',
  'cli/main.ts',
  'instrument/main.ts',
  'launch/mutants.ts',
  'launch/start.ts',
  'launch/test.ts',
  'operations/main.ts',
  'recorder/main.ts',
  'server/bundles/csv-worker.ts',
  'server/import/import-worker.ts',
  'server/main.ts',
  'server/reports/report-worker.ts',
  'simulator/main.ts',
];
/** Folders that programs are made of. */
const sources = [
  'bench',
  'cli',
  'contract',
  'core',
  'instrument',
  'launch',
  'operations',
  'recorder',
  'server',
  'simulator',
  'store',
];
const builtPrograms = path.join(project, 'dist', 'programs');
/** A program that runs may still load a part of its own build, so some builds of before are kept. */
const keptBuilds = 4;

/**
 * Where Node finds one of the project's programs as JavaScript; it is built
 * first where a source has changed. A built program begins in a third of the
 * time that one takes whose files are translated one by one.
 *
 * @param script {string} its source, as 'server/main.ts'
 * @returns {Promise<string>} the address of a module
 */
exports.builtProgram = async function (script) {
  if (!entries.includes(script)) throw new Error(`${script} is no program of Suvok`);
  const folder = path.join(builtPrograms, stateOfSources());
  if (!fs.existsSync(folder)) await buildPrograms(folder);
  return pathToFileURL(path.join(folder, script.replace(/\.ts$/, '.js'))).href;
};

/** Changes with every change of a source, its name or its place. */
function stateOfSources() {
  const hash = createHash('sha256').update(project);
  for (const name of ['package-lock.json', 'tsconfig.json', 'launch/programs.cjs']) noteFile(hash, name);
  for (const folder of sources)
    for (const name of fs.readdirSync(path.join(project, folder), { recursive: true }).sort())
      if (/(?<!\.test)\.tsx?$/.test(name)) noteFile(hash, path.join(folder, name));
  return hash.digest('hex').slice(0, 20);
}

function noteFile(hash, name) {
  const { mtimeMs, size } = fs.statSync(path.join(project, name));
  hash.update(`${name} ${mtimeMs} ${size}\n`);
}

/** Several commands may build at once: each in a folder of its own, and the first one there stays. */
async function buildPrograms(folder) {
  const beside = `${folder}.${process.pid}`;
  await require('esbuild').build({
    absWorkingDir: project,
    entryPoints: entries,
    outbase: project,
    outdir: beside,
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    logLevel: 'silent',
    plugins: [ownPlaces],
  });
  try {
    fs.renameSync(beside, folder);
  } catch (error) {
    fs.rmSync(beside, { recursive: true, force: true });
    if (!fs.existsSync(folder)) throw error;
  }
  forgetOldBuilds();
}

/** A source that asks where it is is told its own place, not the build's: it looks for its neighbours there. */
const ownPlaces = {
  name: 'own-places',
  setup(build) {
    build.onLoad({ filter: /\.tsx?$/ }, ({ path: file }) => {
      const text = fs.readFileSync(file, 'utf8');
      if (!/import\.meta\.(url|dirname)/.test(text)) return undefined;
      const placed = text
        .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(file).href))
        .replaceAll('import.meta.dirname', JSON.stringify(path.dirname(file)));
      return { contents: placed, loader: file.endsWith('x') ? 'tsx' : 'ts' };
    });
  },
};

/** Another command may be at the same: what is gone already is no fault. */
function forgetOldBuilds() {
  const age = (name) => -(fs.statSync(path.join(builtPrograms, name), { throwIfNoEntry: false })?.mtimeMs ?? 0);
  const builds = fs.readdirSync(builtPrograms).filter((name) => !name.includes('.'));
  for (const name of builds.sort((a, b) => age(a) - age(b)).slice(keptBuilds))
    fs.rmSync(path.join(builtPrograms, name), { recursive: true, force: true });
}
