import { sampleAt } from '../../numerics/sample-at.ts';
import { firstNotBelow } from '../../numerics/interpolation.ts';
import type { Recording } from '../../recording/recording.ts';
import { engineRpmOf } from '../../reduction/drive.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import { Refusal } from '../../refusal.ts';
import { lineUp, whole, type LineUp, type SpeedTrace } from './line-up.ts';

/** A run that a logger's file may hold. */
export interface SoughtRun {
  id: number;
  /** When it began on the wall's clock, ms; null where nobody knows. */
  startedMs: number | null;
  trace: SpeedTrace;
}

/** A run as it is sought, by the engine speed of its own recording. */
export function soughtRun(
  { id, startedAt }: { id: number; startedAt: string },
  { drive }: Pick<SweepDrive, 'drive'>,
): SoughtRun {
  return { id, startedMs: Date.parse(startedAt), trace: { time: drive.time, rpm: engineRpmOf(drive) } };
}

/** The stretch of a log in which a run lies. */
export function partOfLog({ time, channels }: Recording, fromS: number, toS: number): Recording {
  const [first, end] = [firstNotBelow(time, fromS), firstNotBelow(time, toS)];
  return {
    time: time.slice(first, end),
    channels: channels.map((channel) => ({ ...channel, values: channel.values.slice(first, end) })),
  };
}

/** Where a run lies in a logger's file, or why it was not found there. */
export type FoundInLog = { id: number } & (
  | { fit: LineUp; fromS: number; toS: number; refused?: undefined }
  | { refused: string; fit?: undefined }
);

/** A pull in the log rises from below the one to above the other, shares of its highest speed. */
const lowShare = 0.6;
const highShare = 0.75;
/** So much of the log is taken around a run, s. */
const aroundS = 6;
/** Clocks of a wall agree within this, s. */
const sameClockS = 5;
/** Another pull fits as well while it lies no farther apart than this many times the best. */
const asWell = 1.5;

/** Times at which the pulls of a log are at their highest, s. */
export function pullsIn({ time, rpm }: SpeedTrace): number[] {
  let top = -Infinity;
  for (const value of rpm) if (value > top) top = value;
  const found: number[] = [];
  let low = false;
  let best: { atS: number; rpm: number } | undefined;
  for (let index = 0; index < time.length; index++) {
    const value = sampleAt(rpm, index);
    if (value < lowShare * top) {
      if (best) found.push(best.atS);
      [best, low] = [undefined, true];
    } else if (low && value > highShare * top && value > (best?.rpm ?? 0))
      best = { atS: sampleAt(time, index), rpm: value };
  }
  if (best) found.push(best.atS);
  return found;
}

/**
 * Finds runs in a logger's file, which may hold one pull or a whole day: each
 * run is laid over each pull, and where several fit, those are taken that
 * agree on what the wall's clock showed.
 */
export function runsInLog(sought: readonly SoughtRun[], file: SpeedTrace): FoundInLog[] {
  const log = whole(file);
  const runs = sought.map((run) => ({ ...run, trace: whole(run.trace) }));
  const pulls = pullsIn(log);
  if (pulls.length === 0)
    return runs.map(({ id }) => ({ id, refused: 'The log shows no pull: its engine speed never rises.' }));
  const fits = runs.map((run) => pulls.map((atS) => tried(run, log, atS)));
  const clock = agreedClock(runs, fits);
  const found = runs.map((run, index): FoundInLog => {
    const fitting = fits[index]!.filter((one): one is Fit => 'fit' in one);
    const [best, rival] = [...fitting].sort((a, b) => a.fit.residualPercent - b.fit.residualPercent);
    const byClock =
      clock === undefined ? undefined : fitting.find((one) => Math.abs((wallOf(run, one) ?? NaN) - clock) < sameClockS);
    const chosen = clock === undefined ? best : byClock;
    if (!best)
      return {
        id: run.id,
        refused: (fits[index]!.find((one): one is Refused => 'why' in one) ?? { why: 'No pull of the log fits it.' })
          .why,
      };
    if (!chosen) return { id: run.id, refused: 'By the clock of the other runs it is not in this file.' };
    if (!byClock && rival && rival.fit.residualPercent < asWell * chosen.fit.residualPercent)
      return {
        id: run.id,
        refused:
          'More than one pull of the log fits it as well, and no clock tells which: look for the runs of one setup alone, or put date and time of the runs right.',
      };
    const { time } = run.trace;
    const at = (runS: number) => runS - chosen.fit.shiftS;
    return {
      id: run.id,
      fit: chosen.fit,
      fromS: at(sampleAt(time, 0) - aroundS),
      toS: at(sampleAt(time, time.length - 1) + aroundS),
    };
  });
  return eachPullOnce(found);
}

/** Of runs that lie on one pull of the log only the one that fits it clearly best can be it. */
function eachPullOnce(found: readonly FoundInLog[]): FoundInLog[] {
  const middle = (one: FoundInLog) => (one.fit ? (one.fromS + one.toS) / 2 : NaN);
  return found.map((one) => {
    if (!one.fit) return one;
    const rivals = found.flatMap((other) =>
      other !== one && other.fit && Math.abs(middle(other) - middle(one)) < aroundS ? [other.fit] : [],
    );
    const nearest = Math.min(...rivals.map(({ residualPercent }) => residualPercent));
    if (one.fit.residualPercent * asWell <= nearest) return one;
    return nearest * asWell <= one.fit.residualPercent
      ? { id: one.id, refused: 'Another run fits that pull of the log better.' }
      : { id: one.id, refused: 'More than one run fits that pull of the log as well: look for one run alone.' };
  });
}

interface Fit {
  fit: LineUp;
}
interface Refused {
  why: string;
}

/** A run laid over the log around one of its pulls. */
function tried({ trace }: SoughtRun, log: SpeedTrace, topS: number): Fit | Refused {
  const { time, rpm } = trace;
  let top = 0;
  for (let index = 1; index < rpm.length; index++) if (sampleAt(rpm, index) > sampleAt(rpm, top)) top = index;
  const topAtS = sampleAt(time, top);
  const from = firstNotBelow(log.time, topS - (topAtS - sampleAt(time, 0)) - 2);
  const to = firstNotBelow(log.time, topS + (sampleAt(time, time.length - 1) - topAtS) + 2);
  try {
    return { fit: lineUp(trace, { time: log.time.subarray(from, to), rpm: log.rpm.subarray(from, to) }) };
  } catch (error) {
    if (error instanceof Refusal) return { why: error.message };
    throw error;
  }
}

/** What the wall's clock showed at the log's time 0 by a fit, s. */
const wallOf = ({ startedMs, trace }: SoughtRun, { fit }: Fit) =>
  startedMs === null ? undefined : startedMs / 1000 - (sampleAt(trace.time, 0) - fit.shiftS);

/** The clock that most runs agree on, where two at least do and no other clock has as many. */
function agreedClock(runs: readonly SoughtRun[], fits: readonly (readonly (Fit | Refused)[])[]): number | undefined {
  const clocks = runs.map((run, index) =>
    fits[index]!.flatMap((one) => ('fit' in one ? (wallOf(run, one) ?? []) : [])),
  );
  const counted = clocks.flat().map((clock) => ({
    clock,
    runs: clocks.filter((of) => of.some((one) => Math.abs(one - clock) < sameClockS)).length,
  }));
  const [best] = counted.sort((a, b) => b.runs - a.runs);
  if (!best || best.runs < 2) return undefined;
  const others = counted.filter(
    ({ clock, runs: agree }) => agree === best.runs && Math.abs(clock - best.clock) > 2 * sameClockS,
  );
  return others.length === 0 ? best.clock : undefined;
}
