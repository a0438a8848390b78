import { heatStateOf } from '../heat/heat-of-run.ts';
import type { HeatState } from '../heat/heat-state.ts';
import { fuelWords } from '../fuel/ledger.ts';
import { baselineRuns } from '../job/baseline.ts';
import { joined, type Sentence } from '../sentence/sentence.ts';
import type { LargeFigure } from './report.ts';
import type { ReportSource, ReportedJob, ReportedRun } from './reported-job.ts';

const heatNames: Record<HeatState, string> = {
  'cold peak': 'cold after a full rest: not a fair comparison',
  ready: 'ready state',
  'heat-soaked': 'heat-soaked',
  cool: 'cooler than the baseline',
  unknown: 'heat not known',
};

/**
 * Arrived, delivered and best seen: three figures, each with what it was
 * measured under. Beside them every other setup and run that a curve was made
 * of, for whoever wants another one to stand.
 */
export function largeFigures(
  source: ReportSource,
  arrivedId: number,
  deliveredId: number,
): { usual: LargeFigure[]; others: LargeFigure[] } {
  const { job } = source;
  const best = job.runs.find(({ id }) => id === job.bestRunId);
  const usual = [
    ...ofSetup(source, arrivedId, 'arrived', 'Arrived'),
    ...(deliveredId === arrivedId
      ? []
      : ofSetup(source, deliveredId, 'delivered', job.deliveredSetupId === null ? 'Last setup' : 'Delivered')),
    ...(best ? ofRun(source, best, 'best', 'Best seen') : []),
  ];
  const others = [
    ...job.setups
      .filter(({ id }) => id !== arrivedId && id !== deliveredId)
      .flatMap(({ id, letter }) => ofSetup(source, id, `setup ${letter}`, `Setup ${letter}`)),
    ...job.runs
      .filter((run) => run !== best && run.label !== null)
      .flatMap((run) => ofRun(source, run, `run ${run.label}`, `Run ${run.label}`)),
  ];
  return { usual, others };
}

/** A setup's peak in the mean of its counted runs. */
function ofSetup({ job, figures }: ReportSource, setupId: number, id: string, name: string): LargeFigure[] {
  const found = figures.setups.find((setup) => setup.setupId === setupId);
  if (!found) return [];
  const runs = baselineRuns(job.runs, setupId, job.baseline);
  const { halfWidthKw } = found;
  return [
    {
      id,
      name,
      kw: found.peakKw,
      ...(halfWidthKw !== undefined && { halfWidthKw }),
      ...(figures.estimate !== undefined && { sign: '≈' as const }),
      note: note(job, runs, found.runs === 1 ? 'one run' : `peak, mean of ${found.runs} runs`),
    },
  ];
}

/** One run, whatever it was worth. */
function ofRun({ job, figures }: ReportSource, run: ReportedRun, id: string, name: string): LargeFigure[] {
  const curve = figures.runs.find((made) => made.id === run.id)?.curve;
  if (!curve) return [];
  const { value, atEdge } = curve.peakPower;
  return [
    {
      id,
      name,
      kw: value,
      ...(figures.estimate === undefined ? atEdge && { sign: '≥' as const } : { sign: '≈' as const }),
      note: note(
        job,
        [run],
        `${run.label ?? 'one run'} alone${run.setAsideReason === null ? '' : `, set aside (${run.setAsideReason})`}`,
      ),
    },
  ];
}

function note(job: ReportedJob, runs: readonly ReportedRun[], count: string): Sentence {
  const [first] = runs;
  const heat = [...new Set(runs.map((run) => heatNames[heatStateOf(job, run, job.setups[0]!)]))];
  const fuel = first?.fuel ? fuelWords({ ...first.fuel, litres: null }) : 'fuel not recorded';
  const day = first?.startedAt ? dayWords(first.startedAt) : '';
  return joined(
    [count, heat.length === 1 ? heat[0]! : 'in different heat states', fuel, day].filter((part) => part !== ''),
    ', ',
  );
}

const days = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
/** A day as it is written in a report: 14 May 2026. */
export const dayWords = (moment: string): string => days.format(new Date(moment));
