import type { GainRow } from '../../../../core/comparison/gain-table.ts';
import { fixedDigits } from '../../../../core/units/fixed-digits.ts';
import { convert } from '../../../../core/units/units.ts';
import { formatDifference, formatRpm } from '../../../../core/wording/figures.ts';
import type { Comparison } from '../../../../core/comparison/comparison.ts';
import type { UncoveredBand } from '../../../../core/comparison/coverage.ts';
import { notCoveredWords } from '../../../../core/wording/coverage-words.ts';
import type { CompareView } from '../view/view-address.ts';

/** The gain table as it is read, wherever it stands: on the screen, on paper, in a spreadsheet. */
export interface GainTableContent {
  /** Heads of the columns: the other side, the test, and the gain with its unit where that is none of the rows'. */
  heads: readonly [string, string, string];
  sections: { name: string; rows: GainTableLine[] }[];
}

export interface GainTableLine {
  id: GainRow['id'] | 'not-covered';
  /** Tells rows of one kind apart. */
  key: string;
  label: string;
  baseline: string;
  test: string;
  /** With its sign, and what follows it: half of the interval, where there is one. */
  gain: string;
  halfWidth: string;
  /** Stands in place of all figures: why there are none. */
  instead?: string;
  /** Read by few: it is folded away until it is asked for. */
  folded: boolean;
  /** Where a verdict is given. */
  tone: 'gain' | 'loss' | undefined;
}

/** The rows of a comparison, and the bands that have none. */
export interface ComparedRows {
  rows: readonly GainRow[];
  power: Pick<Comparison, 'uncovered'>;
}

/** How the figures of a quantity are told: in the unit of the view, with so many digits. */
interface ToldIn {
  of: (kept: number) => number;
  digits: number;
}

/** @param estimate what figures for the crank rest on */
export function gainTableContent(
  { rows, power: { uncovered } }: ComparedRows,
  view: Pick<CompareView, 'test' | 'against' | 'runs' | 'againstRuns' | 'percent' | 'units' | 'bands'>,
  estimate: string | undefined,
): GainTableContent {
  const scale = estimate ? ` ≈ at the crank (${estimate})` : '';
  const against = view.againstRuns?.join(' ') ?? view.against.letter;
  const test = view.runs?.join(' ') ?? view.test.letter;
  const section = (name: string, quantity: GainRow['quantity'], told: ToldIn, percent = view.percent) => ({
    name,
    rows: [
      ...(quantity === 'power' ? uncovered.map((band) => missingLine(band, view.bands)) : []),
      ...rows
        .filter((row) => row.quantity === quantity)
        .map((row) => lineOf(row, against, test, percent, told, view.bands)),
    ],
  });
  return {
    heads: [against, test, view.percent ? 'gain, %' : 'gain'],
    sections: [
      section(`power, ${view.units.power}${scale}`, 'power', {
        of: (kw) => convert(kw, 'kW', view.units.power),
        digits: 1,
      }),
      section(`torque, ${view.units.torque}${scale}`, 'torque', {
        of: (newtonMetres) => convert(newtonMetres, 'N·m', view.units.torque),
        digits: 1,
      }),
      section('time to sweep, s, as driven', 'time', { of: (s) => s, digits: 2 }),
      // To 10 rpm, as speeds are spoken of.
      section('engine speed, rpm', 'engine speed', { of: (rpm) => Math.round(rpm / 10) * 10, digits: 0 }, false),
    ].filter((section) => section.rows.length > 0),
  };
}

function lineOf(
  row: GainRow,
  against: string,
  test: string,
  percent: boolean,
  { of, digits }: ToldIn,
  bands: CompareView['bands'],
): GainTableLine {
  const write = (value: number) => fixedDigits(of(value), digits);
  const shown = (value: number) => (percent ? (100 * value) / row.baseline : of(value));
  const { figure, half } = formatDifference(shown(row.difference), shown(row.halfWidth), percent ? 1 : digits);
  return {
    id: row.id,
    key: `${row.id}-${row.fromRpm ?? ''}`,
    label: rowLabel(row, against, test, bands),
    folded: foldedRows.includes(row.id),
    baseline: write(row.baseline),
    test: write(row.test),
    gain: figure,
    halfWidth: half.replaceAll(' ', ''),
    tone: row.verdict === 'gain' || row.verdict === 'loss' ? row.verdict : undefined,
  };
}

/** A band that matters and has no figure. */
function missingLine(band: UncoveredBand, bands: CompareView['bands']): GainTableLine {
  const figures = { baseline: '', test: '', gain: '', halfWidth: '', tone: undefined };
  const key = `not-covered-${band.fromRpm}-${band.toRpm}`;
  const label = bandLabel(band, bands);
  return { id: 'not-covered', key, label, ...figures, folded: false, instead: notCoveredWords(band) };
}

/** Bands, the common range, peaks and the chosen speed are what is decided by; these stand behind them. */
const foldedRows: readonly GainRow['id'][] = ['stretch', 'largest', 'swept', 'reaches-peak'];

function rowLabel(row: GainRow, against: string, test: string, bands: CompareView['bands']): string {
  const range = `${formatRpm(row.fromRpm ?? 0)}–${formatRpm(row.toRpm ?? 0)}`;
  switch (row.id) {
    case 'band':
    case 'torque-band':
      return bandLabel(row, bands);
    case 'common':
    case 'torque-common':
      return 'common range';
    case 'stretch':
      return `clear ${row.verdict === 'loss' ? 'loss' : 'gain'}, ${range}`;
    case 'at-speed':
    case 'torque-at-speed':
      return `at ${formatRpm(row.fromRpm ?? 0)} rpm`;
    case 'largest':
      return `largest ${row.difference < 0 ? 'loss' : 'gain'}, at ${formatRpm(row.fromRpm ?? 0)}`;
    case 'peak-power':
    case 'peak-torque':
      return `peak${row.atEdge ? ', at least' : ''} (${peakSpeeds(row, against, test)})${row.atEdge ? ', end of run' : ''}`;
    case 'swept':
      return range;
    case 'reaches-peak':
      return `reaches ${against}’s peak`;
  }
}

function bandLabel(
  { fromRpm = 0, toRpm = 0 }: { fromRpm?: number; toRpm?: number },
  bands: CompareView['bands'],
): string {
  const name = bands.find((band) => band.fromRpm === fromRpm && band.toRpm === toRpm)?.name;
  return `${name ?? 'band'}, ${formatRpm(fromRpm)}–${formatRpm(toRpm)}`;
}

/** One speed where both peaks lie together, else each side's. */
function peakSpeeds(row: GainRow, against: string, test: string): string {
  const [atBaseline, atTest] = [formatRpm(row.baselineRpm ?? 0), formatRpm(row.testRpm ?? 0)];
  return atBaseline === atTest ? `${atTest} rpm` : `${against} ${atBaseline} · ${test} ${atTest} rpm`;
}

/** The table for a spreadsheet: tabs between cells, half of the interval in a cell of its own. */
export function gainTableText({ heads, sections }: GainTableContent): string {
  const lines = sections.flatMap(({ name, rows }) => [
    [name],
    ...rows.map(({ label, baseline, test, gain, halfWidth, instead }) =>
      instead === undefined ? [label, baseline, test, gain, halfWidth] : [label, instead],
    ),
  ]);
  return [['', ...heads, '±95 %'], ...lines].map((cells) => cells.join('\t')).join('\n');
}
