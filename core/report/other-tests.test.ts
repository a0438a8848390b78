import { expect, test } from '@jest/globals';
import { makeJobFigures, neededRuns } from '../figures/make-job-figures.ts';
import { readingOf, type Reading } from '../figures/runs/reading.ts';
import { written } from '../sentence/sentence.ts';
import { idleRun } from '../testing/kind-runs.ts';
import { exampleRuns, reportedExample } from '../testing/reported-example.ts';
import { languages } from '../language/languages.ts';
import { keptUnits } from '../units/told-units.ts';
import { composeReport } from './compose-report.ts';
import { askedTests } from './asked-tests.ts';
import type { KindJudgement } from '../judgement/kind-judgement.ts';
import { reportRequest } from './report-request.ts';
import type { ReportedRun, ReportSource } from './reported-job.ts';

/** A job without a power run: three idles of A that hunt, three of B. */
function idlingSource(huntsInB: boolean, of: readonly string[] = ['A', 'A', 'A', 'B', 'B', 'B']): ReportSource {
  const runs = of.map((letter, at): ReportedRun => ({
    ...exampleRuns[at]!,
    kind: 'idle',
    setupId: letter === 'A' ? 1 : 2,
    label: `${letter}${at + 1}`,
  }));
  const told = { ...reportedExample, runs, question: 'Why does it hunt?', deliveredSetupId: null };
  const stored = {
    ...told,
    car: { ignition: 'spark', induction: null, fuelRegulation: null, tyres: '' },
    setups: told.setups.map((setup) => ({ ...setup, plannedRuns: null })),
    limits: [],
    targets: [],
    wantedPercent: null,
  } as const;
  const request = reportRequest(stored, undefined, { standard: 'sae-j1349', powerUnit: 'kW' });
  const hunts = (setupId: number | null) => setupId === 1 || huntsInB;
  const readings = new Map<number, Reading>(
    neededRuns({ job: { runs }, view: request.view }).map((run) => [
      run.id,
      readingOf(
        run,
        idleRun({ seed: run.id, ...(hunts(run.setupId) && { swing: { rpm: 45 + (run.id % 3), periodS: 2 } }) }),
      ),
    ]),
  );
  return {
    job: told,
    figures: makeJobFigures(request, readings),
    view: { standard: 'sae-j1349', share: 1, auto: true },
  };
}
const blockOf = (source: ReportSource, id: string) =>
  composeReport(source).blocks.find((block) => block.id === id)?.content;

test('a job about its idle is answered by its idles: head, table, ladder and what is found', () => {
  const source = idlingSource(false);
  const answer = blockOf(source, 'answer');
  expect(answer?.is === 'answer' && written(answer.headline)).toMatch(
    /^Idle: Spread of the speed −\d.*less, shown: better\.$/,
  );
  const table = blockOf(source, 'tests');
  if (table?.is !== 'table') throw new Error('no table');
  const hunting = table.rows.find(([label]) => written(label!.text).includes('Hunting, amplitude'))!;
  expect(hunting.map(({ text }) => written(text))).toEqual([
    'idle: Hunting, amplitude',
    expect.stringMatching(/^4\d rpm$/),
    '0 rpm',
    expect.stringMatching(/^−4\d ± \d+ rpm$/),
    'less, shown: better',
  ]);
  expect(hunting[3]!.tone).toBe('gain');
  const ladder = blockOf(source, 'ladder');
  expect(ladder?.is === 'table' && written(ladder.rows[0]!.at(-1)!.text)).toContain('idle: Hunting, amplitude −');
  expect(JSON.stringify(blockOf(source, 'care'))).not.toContain('hunts');
});

test('what still hunts is said of what is delivered, and no difference is claimed', () => {
  const source = idlingSource(true);
  const answer = blockOf(source, 'answer');
  expect(answer?.is === 'answer' && written(answer.headline)).toMatch(/no difference is shown\.$/);
  const care = blockOf(source, 'care');
  const items = care?.is === 'list' ? care.items.map(({ text }) => text) : [];
  expect(items.filter((text) => written(text).includes('The idle hunts'))).toHaveLength(3);
  const german = items.map((text) => written(text, { ...keptUnits, language: languages.de }));
  expect(german.join()).toContain('B4: Der Leerlauf sägt');
});

test('one run a side claims nothing and says why; of one setup alone there is no table', () => {
  const answer = blockOf(idlingSource(false, ['A', 'B']), 'answer');
  expect(answer?.is === 'answer' && written(answer.headline)).toMatch(/^Idle: One run a side/);
  expect(blockOf(idlingSource(false, ['A', 'A']), 'tests')).toBeUndefined();
});

test('of many figures those that differ stand in the table, and how many do not', () => {
  const table = blockOf(idlingSource(false), 'tests');
  if (table?.is !== 'table') throw new Error('no table');
  expect(table.rows.length).toBeLessThan(4);
  expect(written(table.note ?? '')).toMatch(/ Beside them \d more figures do not differ beyond their intervals\.$/);
});

test('a question is answered by the tests that it asks for, in the owner’s words beside it', () => {
  const hold = (id: string, before: number, after: number, halfWidth: number) => ({
    id,
    label: `2,500 rpm, 55 kPa: ${id.endsWith('lambda') ? 'λ' : 'power'}`,
    unit: id.endsWith('lambda') ? 'λ' : 'kW',
    digits: 3,
    before,
    after,
    difference: after - before,
    halfWidth,
    asked: !id.endsWith('lambda'),
    claim: null,
    good: null,
  });
  const steps: KindJudgement = {
    kind: 'step',
    before: ['A1', 'A2'],
    after: ['B1', 'B2'],
    figures: [hold('p|powerKw', 8.1, 8.15, 0.2), hold('p|lambda', 1.048, 0.993, 0.006)],
    caveats: [],
    next: null,
  };
  expect(written(askedTests('It stumbles when I pull away', [steps])!)).toBe(
    'At steady-speed steps: 2,500 rpm, 55 kPa: λ 1.048 → 0.993 (−0.055 ± 0.006).',
  );
  expect(askedTests('It stumbles when I pull away', [])).toBeUndefined();
  expect(askedTests('How much power does it make?', [steps])).toBeUndefined();
});
