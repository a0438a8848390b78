import { listed } from '../units/spoken.ts';
import { minutesWords } from '../wording/minutes-words.ts';

/** What was sent to a remote tuner, and what came back. */
export interface TunedJob {
  tunerPackages: readonly { setupId: number | null; runs: number; createdAt: string }[];
  tuneFiles: readonly { setupId: number; name: string; returned: boolean; createdAt: string }[];
  setups: readonly { id: number; letter: string }[];
  runs: readonly { setupId: number | null; startedAt: string }[];
}

/** How the work with a remote tuner stands. Times are ms since 1970, stretches s. */
export interface TunerRounds {
  packages: number;
  /** Runs sent, each as often as it was sent. */
  runs: number;
  /** Files that came back, the first first. */
  files: readonly { name: string; letter: string }[];
  /** How long the tuner had what was sent, until a file came back: one for each such wait. */
  tunerTookS: readonly number[];
  /** How long a file that came back lay here until the next package. */
  shopTookS: readonly number[];
  /** Whose turn it is, since when. */
  turn: 'tuner' | 'shop';
  sinceMs: number;
  /** Of a file that came back last: whether its setup has run since. */
  hasRun: boolean;
}

/**
 * Counts packages and files, and says whose turn it is: after a package the
 * shop waits for the tuner, after a file the tuner waits for the next package.
 * A second package before an answer goes on with the same wait.
 * @returns undefined while nothing was sent
 */
export function tunerRounds({ tunerPackages, tuneFiles, setups, runs }: TunedJob): TunerRounds | undefined {
  const back = tuneFiles.filter(({ returned }) => returned);
  const events = [
    ...tunerPackages.map(({ createdAt }) => ({ turn: 'tuner' as const, atMs: Date.parse(createdAt) })),
    ...back.map(({ createdAt }) => ({ turn: 'shop' as const, atMs: Date.parse(createdAt) })),
  ].sort((a, b) => a.atMs - b.atMs);
  const [first] = events;
  if (!first) return undefined;
  const took = { tuner: [] as number[], shop: [] as number[] };
  let { turn, atMs: sinceMs } = first;
  for (const event of events) {
    if (event.turn === turn) continue;
    took[turn].push((event.atMs - sinceMs) / 1000);
    ({ turn, atMs: sinceMs } = event);
  }
  const last = back.at(-1);
  return {
    packages: tunerPackages.length,
    runs: tunerPackages.reduce((sum, sent) => sum + sent.runs, 0),
    files: back.map(({ name, setupId }) => ({ name, letter: setups.find(({ id }) => id === setupId)?.letter ?? '' })),
    tunerTookS: took.tuner,
    shopTookS: took.shop,
    turn,
    sinceMs,
    hasRun:
      last !== undefined &&
      runs.some(
        ({ setupId, startedAt }) => setupId === last.setupId && Date.parse(startedAt) > Date.parse(last.createdAt),
      ),
  };
}

const counted = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

/** Who waits for whom: `Waiting for the tuner for 25 min`. */
export function turnWords({ turn, sinceMs, files, hasRun }: TunerRounds, nowMs: number): string {
  const since = minutesWords(Math.max(0, (nowMs - sinceMs) / 1000));
  if (turn === 'tuner') return `Waiting for the tuner for ${since}`;
  const last = files.at(-1);
  return `The tuner waits for ${hasRun ? 'the next runs' : `runs of ${last?.letter ?? 'the file'}`} for ${since}`;
}

/** What went to and fro so far: `2 packages with 7 runs sent, 1 file back (r2.bin). The tuner took 1 h 10 min.` */
export function roundsWords({ packages, runs, files, tunerTookS, shopTookS }: TunerRounds): string {
  const back =
    files.length === 0
      ? 'no file back yet'
      : `${counted(files.length, 'file')} back (${listed(files.map(({ name, letter }) => `${name}, ${letter}`))})`;
  const took = (who: string, times: readonly number[]) =>
    times.length === 0 ? [] : [`The ${who} took ${listed(times.map((s) => minutesWords(s)))}.`];
  return [
    `${counted(packages, 'package')} with ${counted(runs, 'run')} sent, ${back}.`,
    ...took('tuner', tunerTookS),
    ...took('shop', shopTookS),
  ].join(' ');
}
