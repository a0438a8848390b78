import { msOf, type DayFacts, type DayRun } from './day-facts.ts';

/** A stretch of a job in a bay as it really was, ms. */
export interface WorkedStretch {
  jobId: number;
  bay: number | null;
  fromMs: number;
  toMs: number;
  kind: 'work' | 'pause';
  /** Why it rested, or was put right by hand. */
  why: string;
  /** When each run began. */
  runsMs: readonly number[];
  /** Runs by setup in their order, such as `A 3 · B 2`. */
  runWords: string;
  /** It goes on: the car is on the dyno and nobody has paused. */
  goesOn: boolean;
  byHand: boolean;
}

/**
 * What was worked on a job in the bays between two moments: from its first run to its last, or to now while the car
 * is on the dyno; pauses within it by themselves. Times put right by hand stand in the place of all that its acts
 * tell there.
 *
 * @param onDyno the bay that the job's car is on now
 */
export function workedStretches(
  { runs, states, workTimes }: Pick<DayFacts, 'runs' | 'states' | 'workTimes'>,
  job: { id: number; state: 'open' | 'paused' | 'closed' },
  onDyno: number | undefined,
  nowMs: number,
): WorkedStretch[] {
  const byHand = workTimes.filter(({ jobId }) => jobId === job.id);
  const own = runs.filter(({ jobId }) => jobId === job.id);
  const rests = restsOf(
    states.filter(({ jobId }) => jobId === job.id),
    nowMs,
  );
  const bays = [...new Set([...own.map(({ bay }) => bay), ...byHand.map(({ bay }) => bay)])];
  return bays.flatMap((bay): WorkedStretch[] => {
    const inBay = own.filter((run) => run.bay === bay);
    const corrected = byHand.filter((time) => time.bay === bay);
    if (corrected.length > 0)
      return corrected.map(({ startsAt, endsAt, why }) => {
        const [fromMs, toMs] = [msOf(startsAt), msOf(endsAt)];
        const within = inBay.filter((run) => msOf(run.startedAt) >= fromMs && msOf(run.startedAt) <= toMs);
        return { jobId: job.id, bay, fromMs, toMs, kind: 'work', why, ...tellOf(within), goesOn: false, byHand: true };
      });
    const fromMs = Math.min(...inBay.map(({ startedAt }) => msOf(startedAt)));
    const lastMs = Math.max(...inBay.map(({ startedAt, endedAt }) => msOf(endedAt ?? startedAt)));
    const goesOn = job.state === 'open' && onDyno === bay;
    const toMs = goesOn ? Math.max(lastMs, nowMs) : lastMs;
    return partedByRests({ jobId: job.id, bay, fromMs, toMs, goesOn }, inBay, rests);
  });
}

interface Rest {
  fromMs: number;
  toMs: number;
  why: string;
}

/** Each pause until what followed it; one that goes on, until now. */
function restsOf(states: DayFacts['states'], nowMs: number): Rest[] {
  return states.flatMap(({ at, state, why }, index) => {
    if (state !== 'paused') return [];
    const next = states[index + 1];
    return [{ fromMs: msOf(at), toMs: next ? msOf(next.at) : nowMs, why }];
  });
}

function partedByRests(
  { jobId, bay, fromMs, toMs, goesOn }: Pick<WorkedStretch, 'jobId' | 'bay' | 'fromMs' | 'toMs' | 'goesOn'>,
  runs: readonly DayRun[],
  rests: readonly Rest[],
): WorkedStretch[] {
  const within = rests.filter((rest) => rest.fromMs > fromMs && rest.fromMs < toMs);
  const parts: WorkedStretch[] = [];
  const work = (from: number, to: number, last: boolean) => {
    if (to <= from) return;
    const own = runs.filter(({ startedAt }) => msOf(startedAt) >= from && (msOf(startedAt) < to || last));
    parts.push({
      jobId,
      bay,
      fromMs: from,
      toMs: to,
      kind: 'work',
      why: '',
      ...tellOf(own),
      goesOn: goesOn && last,
      byHand: false,
    });
  };
  let at = fromMs;
  for (const rest of within) {
    work(at, rest.fromMs, false);
    const end = Math.min(rest.toMs, toMs);
    parts.push({
      jobId,
      bay,
      fromMs: rest.fromMs,
      toMs: end,
      kind: 'pause',
      why: rest.why,
      ...tellOf([]),
      goesOn: false,
      byHand: false,
    });
    at = end;
  }
  // Of a single run that is over, only its moment is known.
  work(at, Math.max(toMs, parts.length === 0 ? at + 1 : toMs), true);
  return parts;
}

function tellOf(runs: readonly DayRun[]): Pick<WorkedStretch, 'runsMs' | 'runWords'> {
  const letters = new Map<string, number>();
  for (const { letter } of runs) letters.set(letter, (letters.get(letter) ?? 0) + 1);
  return {
    runsMs: runs.map(({ startedAt }) => msOf(startedAt)),
    runWords: Array.from(letters, ([letter, count]) => `${letter} ${count}`).join(' · '),
  };
}

/** Time that was worked, pauses left out, ms. */
export const workedMs = (stretches: readonly WorkedStretch[]): number =>
  stretches.reduce((sum, { kind, fromMs, toMs }) => (kind === 'work' ? sum + toMs - fromMs : sum), 0);
