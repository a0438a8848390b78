import { performance } from 'node:perf_hooks';
import { fuellingTable } from '../core/fuelling/fuelling-table.ts';
import { knowledgeOf } from '../core/fuelling/standing.ts';
import type { FuellingAxes } from '../core/setup/fuel-table.ts';
import { drawnErrors, partLoadDrive } from '../core/testing/part-load-drive.ts';
import type { Figure } from './figure.ts';

const drives = 100;
const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1500, 2000, 2500, 3000, 3500, 4000, 4500] },
  down: { channel: 'manifoldPressure', breakpoints: [35, 50, 65, 80, 95] },
};
/** What the generator's noise and three seconds a cell allow, as a share. */
const allowed = 0.0031 / Math.sqrt(3);

/** Errors of a fuel table's cells and of the probe's delay over drawn drives, and what they cost. */
export function fuellingRates(): Figure[] {
  const bias = new Float64Array(35);
  const [delays, times]: [number[], number[]] = [[], []];
  let [squares, cells, held] = [0, 0, 0];
  for (let seed = 1; seed <= drives; seed++) {
    const errors = drawnErrors(axes, seed);
    const { log, delayS } = partLoadDrive({ axes, errors, seed, trims: seed % 2 === 0 });
    const began = performance.now();
    const told = fuellingTable(log, axes);
    times.push(performance.now() - began);
    if (told.delayFrom === 'found') delays.push(Math.abs(told.delay.transportS + told.delay.lagS - delayS));
    told.cells.forEach((cell, at) => {
      if (knowledgeOf(cell) !== 'known') return;
      const off = cell.error - errors[at]!;
      bias[at]! += off / drives;
      squares += off ** 2;
      cells++;
      if (Math.abs(off) <= cell.halfWidth) held++;
    });
  }
  const sorted = delays.sort((a, b) => a - b);
  return [
    {
      name: `fuel table: RMS of cells ÷ what noise and count allow, ${drives} drives`,
      value: Math.sqrt(squares / cells) / allowed,
      unit: '',
      budget: 1.3,
    },
    {
      name: 'fuel table: greatest bias of a cell',
      value: 100 * Math.max(...bias.map(Math.abs)),
      unit: '%',
      budget: 0.1,
    },
    { name: 'fuel table: intervals that hold the truth', value: (100 * held) / cells, unit: '%' },
    {
      name: `probe delay, where it is found (${delays.length} of ${drives}): worst of twenty`,
      value: 1000 * (sorted[Math.floor(0.95 * sorted.length)] ?? NaN),
      unit: 'ms',
      budget: 20,
    },
    {
      name: 'fuel table of a drive of 3 min at 50 Hz, the delay looked for',
      value: times.sort((a, b) => a - b)[drives >> 1]!,
      unit: 'ms',
    },
  ];
}
