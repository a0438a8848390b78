import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readRecordingCsv } from '../core/exchange/recordings/read-csv.ts';
import { curveOf, usualGridRpm } from '../core/figures/runs/corrected-curve.ts';
import type { Recording } from '../core/recording/recording.ts';
import { preparedSweep } from '../core/reduction/prepared-sweep.ts';
import { testDyno } from '../core/testing/test-car.ts';
import type { Figure } from './figure.ts';
import { largeRecording } from './reduction.ts';

const spanRpm = 200;

/** What `same_steps.py` tells: ms, and the peak that it finds, kW. */
interface Told {
  loadtxt: number;
  reduced: number;
  peak: number;
}

/** 20 s at 1 kHz in 12 columns, with as many digits as instruments write. */
function table(): string {
  const heading = ['time [s]', 'rollerSpeed [rad/s]', 'engineSpeed [rpm]'];
  const others = Array.from({ length: 9 }, (_, index) => `more${index} [V]`);
  const rows = Array.from({ length: 20_000 }, (_, row) => {
    const at = row / 1000;
    const more = others.map((_name, index) => (2.5 + Math.sin(row / (7 + index))).toFixed(6));
    return [at.toFixed(3), (60 + 4 * at).toFixed(6), (2000 + 200 * at).toFixed(4), ...more].join(',');
  });
  return `${[...heading, ...others].join(',')}\n${rows.join('\n')}\n`;
}

/** Time, drum and engine speed of a recording as a table. */
function asTable({ time, channels }: Recording): string {
  const [drum, engine] = ['rollerSpeed', 'engineSpeed'].map((name) => channels.find((one) => one.name === name));
  const rows = Array.from(time, (at, index) => `${at},${drum?.values[index]},${engine?.values[index]}`);
  return `time,drum,engine\n${rows.join('\n')}\n`;
}

/** The least of many timings, ms: the ratio of two of them is that of the programs, whatever others have of the machine. */
function leastMs(work: () => void): number {
  let least = Infinity;
  for (let count = 0; count < 40; count++) {
    const begun = performance.now();
    work();
    least = Math.min(least, performance.now() - begun);
  }
  return least;
}

/** Reading and reducing beside NumPy and SciPy on the same machine in the same minute, the least time of each; nothing where there is no Python with them. */
export function numpyFigures(): Figure[] {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-numpy-'));
  try {
    const [tableFile, pullFile] = [join(folder, 'table.csv'), join(folder, 'pull.csv')];
    const text = table();
    const recording = largeRecording();
    writeFileSync(tableFile, text);
    writeFileSync(pullFile, asTable(recording));
    const script = join(import.meta.dirname, 'same_steps.py');
    const words = [script, tableFile, pullFile, JSON.stringify(testDyno), String(spanRpm)];
    const python = spawnSync('python3', words, { encoding: 'utf8' });
    if (python.status !== 0) {
      console.error(`numpy: not measured: ${python.error?.message ?? python.stderr}`);
      return [];
    }
    const told = JSON.parse(python.stdout) as Told;
    const reduce = () => {
      const sweep = preparedSweep(recording, testDyno);
      return curveOf(sweep, undefined, { standard: 'none', share: 1, gridRpm: usualGridRpm, spanRpm });
    };
    const own = { read: leastMs(() => readRecordingCsv(text)), reduced: leastMs(reduce) };
    return [
      { name: 'read CSV, 20 s at 1 kHz, 12 columns', value: own.read, unit: 'ms' },
      { name: 'the same by NumPy’s loadtxt', value: told.loadtxt, unit: 'ms' },
      { name: 'read CSV ÷ loadtxt', value: own.read / told.loadtxt, unit: '', budget: 2 },
      { name: 'reduce by SciPy, the same steps', value: told.reduced, unit: 'ms' },
      { name: 'reduce, span given ÷ SciPy', value: own.reduced / told.reduced, unit: '', budget: 0.4 },
      { name: 'peak: Suvok ÷ SciPy', value: reduce().peakPower.value / told.peak, unit: '' },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
