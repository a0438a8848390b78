import type { Database } from '../../store/database/database.ts';
import { unclaimedRuns } from '../../store/runs/runs.ts';
import { recordingOf } from '../../store/runs/samples.ts';

/** Frames a second of a marked drive. */
export const rateHz = 200;
/** 4 s in gear, 5 s of pulling, 2 s of coast. */
export const lapS = 11;
const pullS = [4, 9] as const;

/** What an instrument of a marked drive reads, in order. */
export const markedChannels = [
  { name: 'rollerSpeed', unit: 'rad/s' },
  { name: 'engineSpeed', unit: 'rpm' },
  { name: 'mark', unit: '' },
];

/** One pull after the other, of which every frame carries its own number: what is stored shows what is missing. */
export class MarkedDrive {
  private frames = 0;

  /** @param send takes a frame at its time, s */
  constructor(private readonly send: (time: number, values: number[]) => void) {}

  /** Frames up to a time, s. @returns frames so far */
  until(timeS: number): number {
    for (; this.frames < timeS * rateHz; this.frames++) {
      const phase = (this.frames / rateHz) % lapS;
      const speed =
        phase < pullS[0] ? 20 : phase < pullS[1] ? 20 + 14 * (phase - pullS[0]) : 90 - 35 * (phase - pullS[1]);
      this.send((this.frames + 1) / rateHz, [speed, speed * 32, this.frames]);
    }
    return this.frames;
  }

  /** Frames up to the end of a lap, and so of so many pulls. */
  laps(pulls: number): number {
    return this.until(lapS * pulls);
  }
}

/** Laps that have begun by a time, s. */
export const lapsBegun = (timeS: number): number => Math.ceil(timeS / lapS);

interface MarksFound {
  runs: number;
  whole: number;
  stored: number;
  doubled: number;
  /** Of another time than it was sent with, or out of order. */
  wrong: number;
  missing: number;
}

/** What the database has of a marked drive of so many pulls. */
export async function marksFound(database: Database, pulls: number): Promise<MarksFound> {
  const runs = await unclaimedRuns(database);
  const seen = new Set<number>();
  const result: MarksFound = { runs: runs.length, whole: 0, stored: 0, doubled: 0, wrong: 0, missing: 0 };
  for (const run of runs) {
    if (run.state === 'sealed') result.whole++;
    const { time, channels } = await recordingOf(database, run);
    const marks = channels[2]!.values;
    marks.forEach((mark, at) => {
      if (seen.has(mark)) result.doubled++;
      seen.add(mark);
      if (Math.abs(time[at]! - (mark + 1) / rateHz) > 1e-9 || (at > 0 && mark !== marks[at - 1]! + 1)) result.wrong++;
    });
    result.stored += marks.length;
  }
  // Half a second before each pull to its lift.
  for (let pull = 0; pull < pulls; pull++)
    for (let mark = (lapS * pull + pullS[0] - 0.5) * rateHz; mark < (lapS * pull + pullS[1]) * rateHz; mark++)
      if (!seen.has(mark)) result.missing++;
  return result;
}

/** Nothing doubled, wrong or missing, and every pull one whole run. */
export const allThere = (pulls: number): Partial<MarksFound> => ({
  runs: pulls,
  whole: pulls,
  doubled: 0,
  wrong: 0,
  missing: 0,
});
