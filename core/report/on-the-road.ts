import { rangeOf } from '../curve/covered-range.ts';
import { sampleAt } from '../numerics/sample-at.ts';
import type { RunFigures } from '../figures/runs/figured-run.ts';
import { meanOf } from '../numerics/mean.ts';
import { tyreCircumferenceM } from '../dyno/ratio.ts';
import { standards } from '../air/correction.ts';
import { airAt, powerInAir } from '../road/other-air.ts';
import { rollingShareLeft, roadDefaults, type RoadCar } from '../road/road-car.ts';
import { engineRpm, shiftSpeedMs, speedMs, timeBetweenS, type GearRun } from '../road/gear-run.ts';
import { difference, joined, quantity, say, type Sentence } from '../sentence/sentence.ts';
import { meanDifference, type MeanDifference } from '../statistics/mean-difference.ts';
import type { Cell, Content } from './report.ts';
import type { ReportSource, ReportedRun } from './reported-job.ts';

/** Density of the air that figures are corrected to, kg/m³: 25 °C, 990 hPa dry. */
const referenceDensity = 1.16;
/** Speeds between which a time is told stand on whole tens of these, km/h, and so far apart at least. */
const stepKmh = 10;
const leastSpanKmh = 30;
/** What an owner knows the feel of, km/h. */
const usualSpans: readonly (readonly [number, number])[] = [
  [80, 120],
  [60, 100],
  [100, 140],
  [40, 80],
];
const perMs = 3.6;

/** Time between two road speeds in each gear, before and after, and where to shift: an estimate. */
export function onTheRoad(
  source: ReportSource,
  arrivedId: number,
  deliveredId: number,
  names: { before: string; after: string },
): Extract<Content, { is: 'table' }> | undefined {
  const { job, figures } = source;
  const { tyres, finalDrive, gears } = job.car;
  const circumferenceM = tyreCircumferenceM(tyres);
  const chosen = figures.comparison?.compared;
  // Runs that were chosen for a comparison are those that the times are made of.
  const of = (setupId: number, ids: readonly number[] | undefined) =>
    figures.runs.filter((run) => run.setupId === setupId && (ids ? ids.includes(run.id) : run.counted));
  const [arrived, delivered] = [of(arrivedId, chosen?.baseline), of(deliveredId, chosen?.test)];
  if (circumferenceM === undefined || finalDrive === null || gears.length === 0 || figures.estimate !== undefined)
    return undefined;
  const [first] = delivered;
  const made = job.runs.find(({ id }) => id === first?.id);
  if (arrived.length === 0 || !first || !made) return undefined;
  const all = gears.map(({ gear, ratio }) => ({
    name: gear,
    run: gearRun(source, made, ratio * finalDrive, circumferenceM),
  }));
  const rows = all.flatMap(({ name, run }, at): Cell[][] => {
    const span = spanIn(run, [...arrived, ...delivered]);
    if (!span) return [];
    const times = (runs: readonly RunFigures[]) =>
      runs.map(
        (one) =>
          timeBetweenS(one.curve, span[0] / perMs, span[1] / perMs, { ...run, sweepRpmPerS: sweepOf(one) }) ?? NaN,
      );
    const [before, after] = [times(arrived), times(delivered)];
    if ([...before, ...after].some(Number.isNaN)) return [];
    const next = all[at + 1];
    const shift = next && shiftSpeedMs(first.curve, run, next.run);
    const seconds = (value: number): Sentence => say`${quantity(value, 's')}`;
    const told =
      arrivedId === deliveredId || figures.comparison?.withheld
        ? undefined
        : gained(before, after, source, first, run, span);
    return [
      [
        { text: name },
        { text: say`${{ value: span[0], unit: 'km/h', unitFollows: true }} to ${quantity(span[1], 'km/h')}` },
        { text: seconds(meanOf(before)), right: true },
        ...(arrivedId === deliveredId ? [] : [{ text: seconds(meanOf(after)), right: true as const }]),
        ...(arrivedId === deliveredId ? [] : [told ?? { text: 'not comparable', right: true as const }]),
        { text: shift === undefined ? '' : say`${quantity(shift * perMs, 'km/h')}`, right: true },
      ],
    ];
  });
  if (rows.length === 0) return undefined;
  const compared: Cell[] =
    arrivedId === deliveredId
      ? []
      : [
          { text: names.after, right: true },
          { text: 'difference', right: true },
        ];
  return {
    is: 'table',
    head: [
      { text: 'gear' },
      { text: 'from, to' },
      { text: names.before, right: true },
      ...compared,
      { text: 'shift up at', right: true },
    ],
    rows,
    note: say`${restsOn(source, made)}${elsewhere(source, meanOf(delivered.map(({ curve }) => curve.peakPower.value)))}`,
  };
}

function gearRun({ job }: ReportSource, { dyno }: ReportedRun, totalRatio: number, circumferenceM: number): GearRun {
  return {
    car: roadCar(job.car),
    totalRatio,
    circumferenceM,
    densityKgM3: referenceDensity,
    rollingShare: rollingShareLeft(dyno.kind),
    sweepRpmPerS: 0,
  };
}

const roadCar = ({ massKg, dragAreaM2, rollingCoefficient }: ReportSource['job']['car']): RoadCar => ({
  massKg: massKg ?? roadDefaults.massKg,
  dragAreaM2: dragAreaM2 ?? roadDefaults.dragAreaM2,
  rollingCoefficient: rollingCoefficient ?? roadDefaults.rollingCoefficient,
});

/** How fast the dyno let the engine rise in a run, rpm/s. */
function sweepOf({ curve: { engineSpeedRpm, timeS } }: RunFigures): number {
  const last = engineSpeedRpm.length - 1;
  return (sampleAt(engineSpeedRpm, last) - sampleAt(engineSpeedRpm, 0)) / (sampleAt(timeS, last) - sampleAt(timeS, 0));
}

/** Speeds of a gear, km/h, that every run covers: usual ones where they lie within, else as far as it goes. */
function spanIn(gear: GearRun, runs: readonly RunFigures[]): readonly [number, number] | undefined {
  const [least, most] = rangeOf(runs.map(({ curve }) => curve));
  const kmh = (rpm: number) => speedMs(rpm, gear) * perMs;
  const inside = ([from, to]: readonly [number, number]) =>
    engineRpm(from / perMs, gear) >= least && engineRpm(to / perMs, gear) <= most;
  const whole = [Math.ceil(kmh(least) / stepKmh) * stepKmh, Math.floor(kmh(most) / stepKmh) * stepKmh] as const;
  return usualSpans.find(inside) ?? (whole[1] - whole[0] >= leastSpanKmh ? whole : undefined);
}

/** The difference of times with the interval that the spread of repeats gives it. */
function gained(
  before: readonly number[],
  after: readonly number[],
  { figures: { spread } }: ReportSource,
  { curve: { engineSpeedRpm, powerKw } }: RunFigures,
  gear: GearRun,
  [from, to]: readonly [number, number],
): Cell {
  const time = (factor: number) =>
    timeBetweenS({ engineSpeedRpm, powerKw: powerKw.map((kw) => factor * kw) }, from / perMs, to / perMs, gear) ?? NaN;
  // By how much a time answers to a share of power: more than one for one, for drag takes its part first.
  const answers = Math.abs(time(1.01) / time(1) - 1) / 0.01;
  const size = meanOf([...before, ...after]) * answers;
  const found: MeanDifference = meanDifference(after, before, {
    prior: { standardDeviation: (spread.upperShare ?? spread.share) * size, df: spread.df, from: spread.from },
  });
  const sure = Math.abs(found.difference) > found.halfWidth;
  return {
    text: difference(found.difference, found.halfWidth, 's', 2),
    right: true,
    ...(sure && { tone: found.difference < 0 ? ('gain' as const) : ('loss' as const) }),
  };
}

function restsOn({ job }: ReportSource, { dyno }: ReportedRun): Sentence {
  const { massKg, dragAreaM2, rollingCoefficient } = job.car;
  const car = roadCar(job.car);
  const assumed = [
    massKg === null && 'mass',
    dragAreaM2 === null && 'drag',
    rollingCoefficient === null && 'rolling drag',
  ].filter((word) => word !== false);
  const defaults = assumed.length > 0 ? say` (${joined(assumed, ', ')} assumed)` : '';
  const lost =
    dyno.kind === 'hub'
      ? 'The reading still lacks the tyres’ drag, all of it is taken off.'
      : 'The reading has lost the driven tyres’ drag already; that of the others is taken off.';
  return say`Estimate for a level road without wind at full throttle: ${String(car.massKg)} kg, drag area ${String(car.dragAreaM2)} m², rolling drag ${String(car.rollingCoefficient)} of the weight${defaults}, turning parts by the gear’s ratio. ${lost}`;
}

/** A hill on a hot day. */
const [hillM, hillC] = [1600, 30];

/** What the same car makes where the air is another one: the correction run backwards. */
function elsewhere({ figures, view: { standard, share } }: ReportSource, peakKw: number): Sentence {
  if (standard === 'none') return '';
  // As its own runs were corrected.
  const engine = figures.runs.find(({ counted, curve }) => counted && curve.correction.engine)?.curve.correction.engine;
  const { kw, valid } = powerInAir(peakKw, airAt(hillM, hillC), standard, share, engine);
  const beyond = valid ? '' : `, which is outside what ${standards[standard].name} allows`;
  return say` At ${hillM.toLocaleString('en-GB')} m and ${quantity(hillC, '°C')} its peak would be about ${quantity(kw, 'kW')} by the correction run backwards${beyond}; thinner air also drags less.`;
}
