import { runsOfOwnKinds } from '../../../../core/figures/runs/kinds-of-job.ts';
import { hasCurve } from '../../../../core/figures/runs/reading.ts';
import { z } from 'zod';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { standardIds } from '../../../../core/air/correction.ts';
import { baselineSetup } from '../../../../core/job/baseline.ts';
import { ranSetups } from '../../../../core/job/counted.ts';
import { usualAgainst, usualTest } from '../../../../core/job/sides.ts';
import { readSpan } from '../../../../core/smoothing/span.ts';
import type { Units } from '../../../../core/units/told-units.ts';
import { powerUnits, torqueUnits } from '../../../../core/units/units.ts';
import { laneAxes } from '../../../../core/scene/lane-axis.ts';
import { figureLanes } from '../../../../core/scene/lane-list.ts';

const rpm = z.coerce.number().min(0).max(30_000);
const runLabels = z
  .string()
  .max(400)
  .regex(/^[A-Z]{1,3}\d+(\.[A-Z]{1,3}\d+)*$/)
  .transform((text) => text.split('.'));
const letters = z
  .string()
  .max(400)
  .regex(/^[A-Z]{1,3}(\.[A-Z]{1,3})*$/)
  .transform((text) => text.split('.'));
export const fields = {
  /** Letters. */
  setup: z.string().max(4),
  against: z.string().max(4),
  baseline: z.string().max(4),
  /** What a setup is compared with instead of one of this job's: `11.B`, setup B of job 11, or `curve-3`, a borrowed curve. */
  from: z.string().regex(/^(\d{1,9}(\.[A-Z]{1,3})?|curve-\d{1,9})$/),
  /** An earlier version of the frozen baseline. */
  version: z.coerce.number().int().positive(),
  standard: z.enum(standardIds),
  /** Percent of the correction that is applied. */
  share: z.coerce.number().min(0).max(100),
  /** `auto`, or a span in rpm. */
  smoothing: z.union([z.literal('auto'), rpm]),
  /** What auto came to when it was resolved. */
  span: z.string().max(200).transform(readSpan),
  /** Bands of engine speed, such as `3000-4500` or `3000-4500.5000-6500`; `common` for the common range; those of the brief where left out. */
  band: z
    .string()
    .max(200)
    .regex(/^(common|\d+-\d+(\.\d+-\d+)*)$/)
    .transform((text) =>
      text === 'common' ? [] : text.split('.').map((band) => band.split('-').map(Number) as [number, number]),
    )
    .refine((bands) => bands.every(([from, to]) => to > from)),
  /** Labels of the only runs compared, such as `A1.A2`; all counted ones where left out. */
  runs: runLabels,
  againstRuns: runLabels,
  /** `1`: the test's unsmoothed points are shown. */
  raw: z.literal('1'),
  at: rpm,
  /** What the centre shows. */
  show: z.enum(['curves', 'steps', 'response', 'road', 'tests']),
  /** Lanes from top to bottom, such as `power.gain.lambda`. */
  lanes: z
    .string()
    .max(400)
    .transform((text) => [...new Set(text.split('.').filter(Boolean))].slice(0, 8))
    .refine((list) => list.length > 0),
  /** `1`: shown large, for the owner. */
  present: z.literal('1'),
  /** The item that a response is wanted to, such as `ignition/0`. */
  item: z.string().max(140),
  /** Engine speeds that the lanes show, rpm. */
  zoom: z
    .string()
    .regex(/^\d+-\d+$/)
    .transform((text) => text.split('-').map(Number) as [number, number])
    .refine(([from, to]) => to > from + 100),
  /** Loss on the way to the wheels that figures are estimated for the crank with: `15`, `12+3`, or a coast-down's label. */
  crank: z.string().regex(/^(\d+(\.\d+)?(\+\d+(\.\d+)?)?|[A-Z]{1,3}\d+)$/),
  /** `percent`: gains as a share of the other side. */
  gain: z.literal('percent'),
  /** λ as air–fuel ratio, or as it is; as the person has it where left out. */
  mixture: z.enum(['afr', 'lambda']),
  /** What the lanes stand over; engine speed where left out. */
  axis: z.enum(laneAxes),
  /** Setups shown beside those compared, and those not shown: letters. */
  also: letters,
  hide: letters,
  /** Whose single runs are drawn; the compared setup's where left out. */
  singles: z.enum(['all', 'none']),
  power: z.enum(powerUnits),
  torque: z.enum(torqueUnits),
};
export type Field = keyof typeof fields;
/** Settings to write; undefined takes one out of the address. */
export type Changes = Partial<Record<Field, string | number | undefined>>;

/** A setup of another job, or a borrowed curve, that a setup is compared with. */
export interface Elsewhere {
  /** As lanes, table and sentence call it. */
  name: string;
}

/** What a browser prefers where the address says nothing. */
export interface ViewPreferences {
  standard: (typeof standardIds)[number];
  units: Units;
}

export type AddressedJob = Pick<Job, 'setups' | 'runs' | 'baseline' | 'earlierBaselines' | 'bands'>;

/** A band that is judged, with the name that the brief gives it. */
export interface ViewedBand {
  fromRpm: number;
  toRpm: number;
  name?: string | undefined;
}

function bandsNamed(bands: readonly (readonly [number, number])[], known: Job['bands']): ViewedBand[] {
  return bands.map(([fromRpm, toRpm]) => ({
    fromRpm,
    toRpm,
    name: known.find((band) => band.fromRpm === fromRpm && band.toRpm === toRpm)?.name,
  }));
}

/** Bands as the address writes them; nothing for those of the brief. */
export function bandWords(bands: readonly ViewedBand[], job: Pick<Job, 'bands'>): string | undefined {
  const words = (list: readonly ViewedBand[]) => list.map(({ fromRpm, toRpm }) => `${fromRpm}-${toRpm}`).join('.');
  const wanted = words(bands);
  if (wanted === words(job.bands)) return undefined;
  return wanted || 'common';
}

/** Settings of the Compare stage. All of them stand in the address, so that a link shows the same figures. */
export type CompareView = ReturnType<typeof viewIn>;

/** What an address asks for, with the usual in the place of what it leaves open or what is not there. */
export function viewIn(address: URLSearchParams, job: AddressedJob, preferences: ViewPreferences) {
  const read = <F extends Field>(field: F) => fieldIn(address, field);
  const lettered = (field: LetterField) => setupNamed(job, read(field));
  const ran = ranSetups(job.setups, job.runs);
  const earlier = job.earlierBaselines.find(({ version }) => version === read('version'));
  const inForce = earlier ?? job.baseline;
  const baseline = baselineSetup(job.setups, inForce, lettered('baseline')?.id);
  const test = lettered('setup') ?? usualTest(ran, baseline);
  const against = lettered('against') ?? usualAgainst(job.setups, test, ran);
  return {
    baseline,
    test,
    against,
    from: read('from'),
    /** The list of runs that the baseline's setup stands for; null where it was never frozen. */
    frozen: inForce,
    /** What it is compared with does not belong to this job. */
    elsewhere: undefined as Elsewhere | undefined,
    standard: read('standard') ?? preferences.standard,
    share: (read('share') ?? 100) / 100,
    smoothing: read('smoothing') ?? 'auto',
    span: read('span'),
    bands: bandsNamed(read('band') ?? job.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const), job.bands),
    runs: read('runs'),
    againstRuns: read('againstRuns'),
    raw: read('raw') === '1',
    atRpm: read('at'),
    show: read('show') ?? (isOfTestsAlone(job) ? 'tests' : 'curves'),
    item: read('item'),
    lanes: read('lanes') ?? figureLanes,
    presenting: read('present') === '1',
    zoom: read('zoom'),
    crank: read('crank'),
    percent: read('gain') === 'percent',
    axis: read('axis') ?? 'engine-speed',
    also: read('also') ?? [],
    hide: read('hide') ?? [],
    singles: read('singles') ?? 'test',
    units: unitsIn(address, preferences.units),
  } as const;
}

/** Whether nothing was run that a curve could be made of, but tests were. */
export const isOfTestsAlone = ({ runs }: Pick<AddressedJob, 'runs'>): boolean =>
  !runs.some(hasCurve) && runsOfOwnKinds(runs).length > 0;

/** The person's units, but for those that a link names. */
function unitsIn(address: URLSearchParams, own: Units): Units {
  const mixture = fieldIn(address, 'mixture');
  return {
    ...own,
    power: fieldIn(address, 'power') ?? own.power,
    torque: fieldIn(address, 'torque') ?? own.torque,
    ...(mixture && { mixture: mixture === 'afr' ? 'AFR' : 'λ' }),
  };
}

/** A setting as the address gives it; undefined where it gives none, or none that is understood. */
export function fieldIn<F extends Field>(address: URLSearchParams, field: F): z.output<(typeof fields)[F]> | undefined {
  const text = address.get(field);
  const parsed = text === null ? undefined : fields[field].safeParse(text);
  return parsed?.success ? (parsed.data as z.output<(typeof fields)[F]>) : undefined;
}

/** The address with some settings changed. */
export function addressWith(address: URLSearchParams, changes: Changes): URLSearchParams {
  const next = new URLSearchParams(address);
  for (const [field, value] of Object.entries(changes)) {
    if (value === undefined) next.delete(field);
    else next.set(field, String(value));
  }
  return next;
}

type LetterField = 'setup' | 'against' | 'baseline';

/** The job's setup of a letter. */
export function setupNamed({ setups }: Pick<AddressedJob, 'setups'>, letter: string | undefined): Setup | undefined {
  return setups.find((setup) => setup.letter === letter);
}
