import { extent } from 'd3-array';
import { standards } from '../air/correction.ts';
import { formatSpan } from '../wording/figures.ts';
import { capitalised, quantity, quantityRange, say, type Quantity, type Sentence } from '../sentence/sentence.ts';
import { heatStateOf } from '../heat/heat-of-run.ts';
import { baselineRuns } from '../job/baseline.ts';
import { stateOf } from '../setup/difference.ts';
import { spokenRpm, listed } from '../units/spoken.ts';
import { brokenWords } from '../limits/broken-words.ts';
import { worstOf } from '../limits/broken-limits.ts';
import { allowanceWords, deviatingWords, ruleWords, spreadWords, withheldWords } from '../wording/judgement-words.ts';
import { careOfTests } from './other-tests.ts';
import { lastOnDyno } from '../job/last-on-dyno.ts';
import { laterName } from './reported-job.ts';
import { dayWords } from './large-figures.ts';
import type { Content } from './report.ts';
import type { ReportSource, ReportedRun } from './reported-job.ts';
import { differenceUnit } from '../units/told-units.ts';

const kinds = {
  'inertia-roller': 'inertia roller',
  'loaded-roller': 'loaded roller',
  hub: 'hub dyno',
  road: 'road',
} as const;

/** What stands against the figures: broken limits, what was not alike, how things stood. */
export function care(source: ReportSource, deliveredId: number): Content {
  const { job, figures } = source;
  const { comparison, estimate } = figures;
  const found = (comparison?.caveats ?? []).map(({ severity, text }) => ({ severity, text }));
  const lost = figures.runs.filter(({ setupId }) => setupId === deliveredId).flatMap(({ broken }) => broken);
  // Told here where no comparison has told them.
  const beyond = comparison
    ? []
    : worstOf(lost).map((broken) => ({ severity: 'stop' as const, text: say`${capitalised(brokenWords(broken))}.` }));
  const state = [...stateOf(job.setups, deliveredId).values()];
  const open = state.flatMap((item) =>
    item.kind === 'filter' && /off|out|without|no\b|removed/i.test(item.name) ? [item.name] : [],
  );
  const best = job.runs.find(({ id }) => id === job.bestRunId);
  const cold = best && heatStateOf(job, best, job.setups[0]!) === 'cold peak';
  return {
    is: 'list',
    items: [
      ...found,
      ...(comparison?.deviating ?? []).map((deviating) => ({
        severity: 'mind' as const,
        text: deviatingWords(deviating),
      })),
      ...unclaimed(figures.comparison, laterName(job)),
      ...beyond,
      ...careOfTests(source, deliveredId),
      ...open.map((name) => ({
        severity: 'mind' as const,
        text: `The figures were made with the filter “${name}”: with it back they may differ.`,
      })),
      ...(cold
        ? [
            {
              severity: 'mind' as const,
              text: `${best.label ?? 'The best run'} was made cold after a full rest: a peak, and no figure to expect on the road.`,
            },
          ]
        : []),
      {
        text:
          estimate === undefined
            ? `Power is that at the ${placeOf(job)} on this dyno; another dyno may read several percent apart.`
            : `Power is estimated for the crank (${estimate}); no dyno measures it.`,
      },
    ],
  };
}

/** Why nothing is claimed in the first band, where that is no matter of what was not alike: the headline may tell of another. */
function unclaimed(
  comparison: ReportSource['figures']['comparison'],
  later: string,
): { severity: 'mind'; text: Sentence }[] {
  if (!comparison) return [];
  const { fromRpm, toRpm } = comparison.power.ranges[0];
  return comparison.judgement.withheld
    .filter(({ id }) => id !== 'not-alike')
    .map((reason) => ({
      severity: 'mind',
      text: say`Nothing is claimed from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm: ${withheldWords(reason, { test: later === 'delivered' ? 'what is delivered' : 'the last setup', against: 'what arrived' })}.`,
    }));
}

/** What nobody tried. */
export function untested({ job }: ReportSource): Content | undefined {
  const lines = job.untested
    .split(/\n|;/)
    .map((line) => line.trim())
    .filter(Boolean);
  return lines.length === 0 ? undefined : { is: 'list', items: lines.map((text) => ({ text })) };
}

/** What was taken off, switched off or raised for the measuring, and is back. */
export function putBack({ job }: ReportSource): Content | undefined {
  const done = job.putBack.filter((item) => item.done);
  return done.length === 0 ? undefined : { is: 'list', items: done.map(({ text }) => ({ text })) };
}

/** Machine, air, and when. */
export function conditions(source: ReportSource, arrivedId: number, deliveredId: number): Content | undefined {
  const runs = comparedRuns(source, [arrivedId, deliveredId]);
  const [first] = runs;
  if (!first) return undefined;
  const said = [...new Set(runs.map((run) => machineWords(run)))];
  const dates = [...new Set(runs.flatMap(({ startedAt }) => (startedAt ? [dayWords(startedAt)] : [])))];
  const paragraphs: Sentence[] = [say`${said.join('; ')}. ${airWords(runs)} Measured on ${listed(dates)}.`];
  const tyres = [
    ...new Set(
      runs
        .flatMap(({ tyres: name, tyrePressureKpa: kPa }) => (name ? [{ name, kPa }] : []))
        .map(({ name, kPa }) => JSON.stringify([name, kPa ?? null])),
    ),
  ];
  for (const one of tyres) {
    const [name, kPa] = JSON.parse(one) as [string, number | null];
    paragraphs.push(kPa === null ? say`Tyres: ${name}.` : say`Tyres: ${name}, ${quantity(kPa, 'kPa')}.`);
  }
  return { is: 'text', paragraphs };
}

function machineWords({ dyno, gear }: ReportedRun): string {
  const inertia = `${dyno.inertiaKgM2} kg·m²`;
  return `${kinds[dyno.kind].charAt(0).toUpperCase()}${kinds[dyno.kind].slice(1)}, ${inertia}${gear ? `, ${gear} gear` : ''}`;
}

function airWords(runs: readonly ReportedRun[]): Sentence {
  const airs = runs.flatMap(({ air }) => air ?? []);
  const range = (values: readonly number[], unit: string): Sentence | Quantity => {
    const [least = NaN, most = NaN] = extent(values);
    return Math.round(least) === Math.round(most) ? quantity(least, unit) : quantityRange(least, most, unit);
  };
  if (airs.length === 0) return 'No air was recorded.';
  const some = airs.length < runs.length ? ' Of some runs the air is not known.' : '';
  return say`Air at the inlet ${range(
    airs.map((air) => air.temperatureC),
    '°C',
  )}, ${range(
    airs.map((air) => air.pressureHpa),
    'hPa',
  )}, ${range(
    airs.map((air) => air.relativeHumidityPct),
    '%',
  )} humidity.${some}`;
}

/** What a metrologist asks: standard, scale, smoothing, repeats, and what ± rests on. */
export function made({ job, figures, view }: ReportSource): Content {
  const { factors, spanRpm, comparison, estimate, spread } = figures;
  const scale = estimate === undefined ? `At the ${placeOf(job)}` : `Estimated for the crank (${estimate})`;
  const standard =
    view.standard === 'none'
      ? 'uncorrected'
      : `corrected to ${standards[view.standard].name}${factors ? ` (×${factors[0].toFixed(3)} to ×${factors[1].toFixed(3)})` : ''}${view.share < 1 ? ` at ${Math.round(100 * view.share)} % of the correction` : ''}`;
  const smoothing =
    spanRpm === 0
      ? 'not smoothed'
      : `smoothed over ${formatSpan(spanRpm)}${view.auto ? ', the span with the least error on the baseline’s runs' : ''}`;
  const first: Sentence = `${scale}, ${standard}, ${smoothing}. Figures are means of the counted runs at the same engine speeds; ± beside a single figure is how far the mean of as many runs would read another time, 95 %, not what a change gave.`;
  if (!comparison) return { is: 'text', paragraphs: [first] };
  const { test, baseline } = comparison.compared;
  const known = comparison.power.ranges[0].difference.from;
  const allowance = allowanceWords(comparison.power.ranges[0].difference);
  const rests = known === 'learned' || known === 'assumed' ? spreadWords(spread) : 'from this job’s own repeats';
  return {
    is: 'text',
    paragraphs: [
      first,
      `${baseline.length} ${runsOf(baseline.length)} as arrived, ${test.length} ${laterName(job) === 'delivered' ? 'as delivered' : 'of the last setup'}. ± is a 95 % interval of the mean difference; it ${ruleWords(comparison.judgement.judging)}. The spread of repeats is known ${rests}. Grey about the gain holds at all engine speeds at once; filled is what is shown there.`,
      ...(allowance ? [allowance] : []),
    ],
  };
}

/** Where power was measured. */
const placeOf = ({ runs }: ReportSource['job']) => (lastOnDyno(runs)?.dyno.kind === 'hub' ? 'hubs' : 'wheels');

const runsOf = (count: number) => (count === 1 ? 'run' : 'runs');

/** The counted runs of some setups, in the order in which they were made. */
function comparedRuns({ job }: ReportSource, setupIds: readonly number[]): ReportedRun[] {
  return [...new Set(setupIds)].flatMap((id) => baselineRuns(job.runs, id, job.baseline));
}

/** The tune file that goes with the car, by what is in it, and how near it runs to a limit. */
export function file({ job, figures: { headroom } }: ReportSource, deliveredId: number): Content | undefined {
  const files = job.tuneFiles.filter(({ setupId }) => setupId === deliveredId);
  if (files.length === 0) return undefined;
  const nearest = headroom?.rows[0];
  const margin: Sentence = nearest
    ? say` Nearest limit: ${nearest.label.toLowerCase()}, ${quantity(Math.abs(nearest.left), differenceUnit(nearest.unit))} ${nearest.left < 0 ? 'beyond it' : 'left'}.`
    : '';
  return {
    is: 'text',
    paragraphs: files.map(
      ({ name, sha256 }) => say`${name}, SHA-256 ${sha256.slice(0, 8)} ${sha256.slice(8, 16)}….${margin}`,
    ),
  };
}
