import { moneyWords, quantityWords, sums } from '../charges/charges.ts';
import type { GainRow } from '../comparison/gain-table.ts';
import { difference, joined, quantity, say, type Sentence } from '../sentence/sentence.ts';
import type { FamilyPair } from '../judgement/job-claims.ts';
import { lineOf } from '../setup/difference.ts';
import { setupWords } from '../setup/setup-words.ts';
import { spokenRpm } from '../units/spoken.ts';
import { notCoveredWords } from '../wording/coverage-words.ts';
import { jobClaimWords, toneOf } from '../wording/judgement-words.ts';
import { testsOfStep } from './other-tests.ts';
import { askedWords, madeWords, standingWords, wantedWords, withReading } from '../wording/target-words.ts';
import { laterName } from './reported-job.ts';
import { right, type Cell, type Content } from './report.ts';
import type { ReportSource, ReportedSetup } from './reported-job.ts';
import { differenceUnit } from '../units/told-units.ts';

/** The bands that the owner cares about: before, after, and what that is. */
export function bands({ job, figures: { comparison } }: ReportSource, later: string): Content | undefined {
  if (!comparison || job.bands.length === 0) return undefined;
  const wanted = comparison.rows.filter(({ id }) => id === 'band' || id === 'torque-band' || id === 'common');
  if (wanted.length === 0) return undefined;
  return {
    is: 'table',
    head: [{ text: 'mean' }, right('arrived'), right(later), right('gain')],
    rows: [
      ...comparison.power.uncovered.map((band): Cell[] => [
        { text: rowName({ id: 'band', quantity: 'power', ...band }, job.bands) },
        right('–'),
        right('–'),
        right(notCoveredWords(band)),
      ]),
      ...wanted.map((row) => {
        const unit = row.quantity === 'torque' ? 'N·m' : 'kW';
        const at = (value: number): Sentence => say`${{ value, unit, digits: 1 }}`;
        const tone = row.verdict === 'gain' || row.verdict === 'loss' ? row.verdict : undefined;
        return [
          { text: rowName(row, job.bands) },
          right(at(row.baseline)),
          right(at(row.test)),
          right(difference(row.difference, row.halfWidth, unit, 1), tone),
        ];
      }),
    ],
  };
}

function rowName(
  { id, quantity: of, fromRpm = 0, toRpm = 0 }: Pick<GainRow, 'id' | 'quantity' | 'fromRpm' | 'toRpm'>,
  named: ReportSource['job']['bands'],
): string {
  const band = named.find((candidate) => candidate.fromRpm === fromRpm && candidate.toRpm === toRpm);
  const where = id === 'common' ? 'the whole range, ' : band ? `${band.name}, ` : '';
  return `${of}: ${where}${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;
}

/** What the owner wanted a setup to make: what arrived and what is delivered made of it. */
export function targets({ job, figures }: ReportSource, arrivedId: number, deliveredId: number): Content | undefined {
  const found = job.targets.flatMap((target) => {
    const of = figures.targets?.find(({ id }) => id === target.id);
    const now = of?.setups.find(({ setupId }) => setupId === deliveredId);
    return of && now ? [{ target, of, now, before: of.setups.find(({ setupId }) => setupId === arrivedId) }] : [];
  });
  if (found.length === 0) return undefined;
  const changed = arrivedId !== deliveredId;
  return {
    is: 'table',
    head: [
      { text: 'target' },
      right('wanted'),
      ...(changed ? [right('arrived')] : []),
      right(changed ? laterName(job) : 'arrived'),
      { text: 'stands' },
    ],
    rows: found.map(({ target, of, now, before }) => {
      const stands = standingWords(target, of, now);
      return [
        { text: askedWords(target) },
        right(wantedWords(target)),
        ...(changed ? [right(before ? madeWords(target, before) : '–')] : []),
        right(madeWords(target, now)),
        { text: withReading(stands, target, of) },
      ];
    }),
    note: 'A target of the crank is held against what it would read here; ± is a 95 % interval, and reached is what lies wholly above.',
  };
}

/** What each change gave on the setup that it was changed from, in every band, and what became of it. */
export function ladder(source: ReportSource, deliveredId: number): Content | undefined {
  const { job, figures } = source;
  const kept = new Set(lineOf(job.setups, deliveredId).map(({ id }) => id));
  const changed = job.setups.filter(
    ({ parentId, id }) =>
      parentId !== null &&
      (figures.setups.some(({ setupId }) => setupId === id) ||
        figures.tests?.steps.some(({ testId }) => testId === id)),
  );
  if (changed.length === 0) return undefined;
  const among = figures.setups.length;
  const steps = changed.map((setup) => {
    const own = figures.setups.find(({ setupId }) => setupId === setup.id)?.onParent;
    const pair = figures.pairs?.find(
      ({ judgement }) => judgement.testId === own?.testId && judgement.againstId === own.againstId,
    );
    return { setup, own, ranges: (pair?.rows ?? []).filter(({ id }) => id === 'band' || id === 'common') };
  });
  // Tests that are no power runs have no gain in a band.
  const swept = steps.some(({ ranges }) => ranges.length > 0);
  const columns = !swept ? [] : job.bands.length > 0 ? job.bands.slice(0, mostBands) : [undefined];
  return {
    is: 'table',
    head: [
      { text: 'change' },
      ...columns.map((band) =>
        right(band ? `${band.name}, ${spokenRpm(band.fromRpm)} to ${spokenRpm(band.toRpm)}` : 'mean over all speeds'),
      ),
      { text: swept ? 'kept' : 'kept, and what its tests show' },
    ],
    rows: steps.map(({ setup, own, ranges }) => {
      const cells = columns.map((band): Cell => {
        const row = ranges.find(({ id, fromRpm, toRpm }) =>
          band ? id === 'band' && fromRpm === band.fromRpm && toRpm === band.toRpm : id === 'common',
        );
        const missed =
          band && own?.uncovered.find(({ fromRpm, toRpm }) => fromRpm === band.fromRpm && toRpm === band.toRpm);
        return row
          ? right(
              difference(row.difference, row.halfWidth, 'kW', 1),
              toneIn(row, own && own.fromRpm === row.fromRpm && own.toRpm === row.toRpm ? own : undefined),
            )
          : right(missed ? notCoveredWords(missed) : '–');
      });
      // Where one band shows a gain, the words for what could not be shown are left out.
      const claim = own && cells.every(({ tone }) => tone === undefined) ? shownWords(own, among) : undefined;
      const fate = joined([fateOf(setup, kept, claim), ...testsOfStep(source, setup.id)], '; ');
      return [{ text: `${setup.letter}, ${setupWords(job.setups, setup)}` }, ...cells, { text: fate }];
    }),
    ...(swept && {
      note: 'Mean gain of each on the setup before it, at the same engine speeds; ± is a 95 % interval. Bold is what is shown; in the first band, what is shown among all changes of this job.',
    }),
  };
}

/** More bands do not fit a page's width. */
const mostBands = 3;

/** What may be claimed in a band: in the first by all pairs of the job together, in the others by the pair itself. */
function toneIn({ verdict }: GainRow, first: FamilyPair | undefined): Cell['tone'] {
  if (first) return toneOf(first.jobClaim);
  return verdict === 'gain' || verdict === 'loss' ? verdict : undefined;
}

/** Why nothing is claimed; empty where something is. */
function shownWords(pair: FamilyPair, setups: number): string {
  return jobClaimWords(pair, setups, { test: 'it', against: 'the one before' });
}

/** What became of a change: kept is what somebody decided to keep. */
const fates = {
  keep: { delivered: 'yes', elsewhere: 'yes, not in what is delivered' },
  'go back': { delivered: 'put back was decided, and it is in what is delivered', elsewhere: 'put back' },
  'try further': { delivered: 'not decided: trying further', elsewhere: 'not decided: trying further' },
  undecided: { delivered: 'not decided, in what is delivered', elsewhere: 'not decided' },
} as const;

function fateOf({ id, decision }: ReportedSetup, kept: ReadonlySet<number>, claim: string | undefined): string {
  const fate = fates[decision ?? 'undecided'][kept.has(id) ? 'delivered' : 'elsewhere'];
  return claim ? `${fate}; ${claim}` : fate;
}

/** What is left to each limit in the last run of what is delivered. */
export function limits({ figures: { headroom } }: ReportSource): Content | undefined {
  if (!headroom || headroom.rows.length === 0) return undefined;
  const { against } = headroom;
  return {
    is: 'table',
    head: [
      { text: 'limit' },
      right('set'),
      ...(against ? [right(`read in ${against.label}`)] : []),
      right(`read in ${headroom.label}`),
      right('left'),
    ],
    rows: headroom.rows.map(({ label, unit, limit, reading, left }, at) => {
      const before = against?.readings[at];
      const told = (value: number): Sentence => say`${quantity(value, unit)}`;
      const rest: Sentence = say`${quantity(left, differenceUnit(unit))}`;
      return [
        { text: label },
        right(told(limit.value)),
        ...(against ? [right(before === undefined ? '–' : told(before))] : []),
        right(told(reading)),
        right(rest, left < 0 ? 'warning' : undefined),
      ];
    }),
    ...(headroom.unknown.length > 0 && { note: `Not known from this run: ${headroom.unknown.join(', ')}.` }),
  };
}

/** What the job comes to, as far as lines were charged. */
export function costs({ job: { charges } }: ReportSource): Content | undefined {
  if (charges.length === 0) return undefined;
  return {
    is: 'table',
    head: [{ text: 'what it was' }, right('quantity'), right('price'), right('sum')],
    rows: [
      ...charges.map((line) => [
        { text: line.what },
        right(quantityWords(line)),
        right(moneyWords(line.amount, line.currency)),
        right(moneyWords(line.quantity * line.amount, line.currency)),
      ]),
      ...sums(charges).map(({ amount, currency }) => [
        { text: 'sum' },
        right(''),
        right(''),
        right(moneyWords(amount, currency)),
      ]),
    ],
    note: 'A sum of the work, not the invoice.',
  };
}
