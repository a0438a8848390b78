import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ownCluster } from '../launch/own-cluster.ts';
import { stopProgram } from '../launch/program.ts';
import { startServerProgram } from '../launch/suvok-programs.ts';
import { job as jobRecord } from '../contract/job/records.ts';
import { readRecordingCsv } from '../core/exchange/recordings/read-csv.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno } from '../core/testing/test-car.ts';
import type { Figure } from './figure.ts';
import { residentMb } from './process-use.ts';

/** Sixteen channels for three minutes at 1 kHz and more, until there are so many bytes. */
const largeBytes = 72e6;

/** A recording as text of about so many bytes, in the pieces that it is written in. */
function* largeCsv(): Generator<string> {
  const rows = 400_000;
  yield `time [s],rollerSpeed [rad/s],engineSpeed [rpm],${Array.from({ length: 14 }, (_, at) => `more${at} [V]`).join(',')}\n`;
  let bytes = 0;
  for (let row = 0; row < rows && bytes < largeBytes; row += 1000) {
    let text = '';
    for (let at = row; at < row + 1000; at++) {
      const time = at / 1000;
      // Four seconds in gear, then a pull that takes the rest.
      const speed = 60 + Math.max(0, time - 4) * 0.45 + 0.01 * Math.sin(at);
      const cells = Array.from({ length: 14 }, (_, index) => (2.5 + Math.sin(at / (7 + index))).toFixed(9));
      text += `${time.toFixed(3)},${speed.toFixed(9)},${((speed * 3.4 * 60) / (2 * Math.PI)).toFixed(7)},${cells.join(',')}\n`;
    }
    bytes += text.length;
    yield text;
  }
}

/** What bringing a large recording in costs the server, and how fast a small one is read. */
export async function importFigures(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-bench-'));
  const cluster = await ownCluster(folder);
  const server = await startServerProgram({ DATABASE_URL: cluster.url('postgres'), PORT: '0', SUVOK_RECORDER: folder });
  try {
    const api = `http://127.0.0.1:${server.port}/api`;
    const made = await fetch(`${api}/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"vehicle":"Large"}',
    });
    const { setups } = jobRecord.parse(await made.json());
    const form = new FormData();
    const file = new Blob([...largeCsv()]);
    form.append('file', file, 'large.csv');
    form.append(
      'settings',
      JSON.stringify({
        setupId: setups[0]?.id,
        dyno: testDyno,
        air: null,
        engineToDrumRatio: null,
        startedAt: '2026-05-04T09:00:00Z',
      }),
    );
    const pid = server.child.pid ?? 0;
    const before = residentMb(pid);
    let most = before;
    const watch = setInterval(() => (most = Math.max(most, residentMb(pid))), 20);
    const began = performance.now();
    const answer = await fetch(`${api}/imports`, { method: 'POST', body: form });
    const ms = performance.now() - began;
    clearInterval(watch);
    if (!answer.ok) throw new Error(`the import answered ${answer.status}: ${await answer.text()}`);
    const name = `import of ${Math.round(file.size / 1e6)} MB, 16 channels`;
    return [
      { name: `${name}, sent to stored`, value: ms / 1000, unit: 's', budget: 8 },
      {
        name: `${name}, most memory of the server (${Math.round(before)} MB before)`,
        value: most,
        unit: 'MB',
        budget: 400,
      },
      { name: '20,000 × 3 cells read, warm', value: smallMs(), unit: 'ms', budget: 30 },
    ];
  } finally {
    await stopProgram(server.child);
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

function smallMs(): number {
  const run = generatedRun({ rateHz: 1000, coastS: 20 });
  const [head, ...rows] = writeRecordingCsv(run).trim().split('\n');
  const text = [head, ...rows.slice(0, 20_000)].join('\n');
  const times = Array.from({ length: 15 }, () => {
    const began = performance.now();
    readRecordingCsv(text);
    return performance.now() - began;
  });
  return times.slice(5).sort((a, b) => a - b)[5]!;
}
