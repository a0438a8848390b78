import { resolve } from 'node:path';
import { bundleFigures } from './bundles.ts';
import { comparingFigures } from './compare.ts';
import { dipDepths, familyErrors } from './accuracy.ts';
import { checkRates } from './checks.ts';
import { experimentRates } from './experiments.ts';
import { table } from './figure.ts';
import { logRates } from './logs.ts';
import { fuellingRates } from './fuelling.ts';
import { importFigures } from './imports.ts';
import { logPageFigures } from './log-page.ts';
import { listTimes } from './lists.ts';
import { recordingFigures } from './recording.ts';
import { caseErrors, reductionTimes } from './reduction.ts';
import { responseRates } from './responses.ts';
import { kindRates } from './run-kinds.ts';
import { startTimes } from './starts.ts';
import { surfaceRates } from './surfaces.ts';

/** `npm run bench [-- --json] [-- --long]`: what is measured, never asserted. */
const figures = [
  ...reductionTimes(),
  ...caseErrors(resolve(import.meta.dirname, '../../shared/cases')),
  ...familyErrors(),
  ...dipDepths(),
  ...checkRates(),
  ...experimentRates(),
  ...logRates(),
  ...responseRates(),
  ...fuellingRates(),
  ...kindRates(),
  ...surfaceRates(),
  ...(await listTimes()),
  ...(await importFigures()),
  ...(await bundleFigures()),
  ...(await recordingFigures()),
  ...(await comparingFigures()),
  ...(await logPageFigures()),
  ...(await startTimes()),
];
process.stdout.write(process.argv.includes('--json') ? `${JSON.stringify(figures, null, 2)}\n` : `${table(figures)}\n`);
