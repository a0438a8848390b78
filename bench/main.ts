import { resolve } from 'node:path';
import { bundleFigures } from './bundles.ts';
import { comparingFigures } from './compare.ts';
import { dipDepths, familyErrors } from './accuracy.ts';
import { checkRates } from './checks.ts';
import { coverageRates } from './coverage.ts';
import { elsewhereFigures } from './elsewhere.ts';
import { driftingJobs } from './drifting-jobs.ts';
import { experimentRates } from './experiments.ts';
import { line, type Figure, type Taken } from './figure.ts';
import { logRates } from './logs.ts';
import { fuellingRates } from './fuelling.ts';
import { importFigures } from './imports.ts';
import { logPageFigures } from './log-page.ts';
import { listTimes } from './lists.ts';
import { numpyFigures } from './numpy.ts';
import { processorTimes, takenSince } from './process-use.ts';
import { recordingFigures } from './recording.ts';
import { caseErrors, reductionTimes } from './reduction.ts';
import { responseRates } from './responses.ts';
import { kindRates } from './run-kinds.ts';
import { startTimes } from './starts.ts';
import { surfaceRates } from './surfaces.ts';

const subjects: Record<string, () => Figure[] | Promise<Figure[]>> = {
  reduction: reductionTimes,
  numpy: numpyFigures,
  cases: () => caseErrors(resolve(import.meta.dirname, '../../shared/cases')),
  families: familyErrors,
  dips: dipDepths,
  checks: checkRates,
  coverage: coverageRates,
  experiments: experimentRates,
  drifts: driftingJobs,
  logs: logRates,
  responses: responseRates,
  fuelling: fuellingRates,
  kinds: kindRates,
  surfaces: surfaceRates,
  lists: listTimes,
  imports: importFigures,
  bundles: bundleFigures,
  recording: recordingFigures,
  comparing: comparingFigures,
  elsewhere: elsewhereFigures,
  'log-page': logPageFigures,
  starts: startTimes,
};

/**
 * `npm run bench [-- SUBJECT …] [--json] [--long]`: what is measured, never asserted. Beside each figure stands the
 * share of processor time that was not there for it, for others on the same machine had it.
 */
const options = process.argv.slice(2);
const asked = options.filter((option) => !option.startsWith('--'));
const stranger = asked.find((name) => !(name in subjects));
if (stranger !== undefined) {
  console.error(`There is nothing to measure called "${stranger}": say ${Object.keys(subjects).join(', ')}.`);
  process.exit(1);
}
const asJson = options.includes('--json');
const taken: Taken[] = [];
for (const name of asked.length > 0 ? asked : Object.keys(subjects)) {
  const before = processorTimes();
  try {
    const figures = (await subjects[name]?.()) ?? [];
    const byOthers = takenSince(before);
    const found = figures.map((figure) => ({ ...figure, subject: name, byOthers }));
    taken.push(...found);
    if (!asJson) for (const figure of found) console.log(line(figure));
  } catch (error) {
    // What cannot be measured is said; what was and will be measured stands.
    console.error(`${name}: not measured: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    process.exitCode = 1;
  }
}
if (asJson) console.log(JSON.stringify(taken, null, 2));
// A stand-in of a subject that failed may still be there.
process.exit();
