import type { Job, Run, Setup } from '../../contract/job/records.ts';
import { momentOf, type Moment } from '../../core/readiness/moment.ts';
import { waitBefore, type Wait } from '../../core/readiness/wait.ts';
import type { HeatToReady } from '../heat/use-cooling.ts';
import { useBrokenRuns } from '../job/use-broken-runs.ts';
import { latestReading, useLive } from '../state/live.ts';
import { usePreferences } from '../state/preferences.ts';
import { useNow } from '../ui/use-now.ts';
import { useCoasting } from './use-coasting.ts';
import { useLiveLimits } from './watch-limits.ts';

interface MomentProps {
  job: Job | undefined;
  /** The one on the dyno. */
  setup: Setup | undefined;
  heat: HeatToReady;
  resultOpen?: boolean;
}

/** The bay's one state: Record and the driver's view say the same. */
export function useMoment({ job, setup, heat, resultOpen = false }: MomentProps): Moment {
  const bay = useLive((state) => state.bay);
  const connected = useLive((state) => state.connected);
  const recorderHeard = useLive((state) => state.recorderSilentSince === null);
  const cautionsRead = usePreferences((state) => state.cautionsRead);
  const ended = job?.runs.filter(({ state }) => state !== 'recording') ?? [];
  const coasting = useCoasting(Math.max(0, ...endsOf(ended)));
  // What the setup on the dyno did last; another one is another car in this.
  const last = ended.filter(({ setupId }) => setupId === setup?.id).slice(-1);
  const [broken] = useBrokenRuns(job, last);
  const crossed = useLiveLimits((state) => state.shouts.length > 0);
  const wait = useWait(job, heat);
  const moment = momentOf({
    connected: connected && bay !== undefined,
    recorderHeard,
    mounted: setup !== undefined && bay?.mounted?.jobId === job?.id,
    dynoHeard: bay?.devices.some(({ dyno, heard }) => dyno && heard) ?? false,
    recorder: bay?.recorder.state ?? 'idle',
    coasting,
    resultOpen,
    cautionsRead,
    failedItems: job?.inspections.filter(({ outcome }) => outcome === 'fail').length ?? 0,
    brokenRun: broken?.label ?? (crossed ? (last[0]?.label ?? 'the last run') : undefined),
    wait,
  });
  return moment;
}

const endsOf = (runs: readonly Run[]) => runs.flatMap(({ endedAt }) => (endedAt ? [Date.parse(endedAt)] : []));

/** What is to be waited for before the next run, told anew every second. */
export function useWait(job: Job | undefined, { window, times }: HeatToReady): Wait {
  const coolDownMin = useLive((state) => state.bay?.plan.coolDownMin ?? 0);
  const nowMs = useNow();
  const nowC = Object.fromEntries(
    Object.keys(window).flatMap((channel) => {
      const value = latestReading(channel);
      return value === undefined ? [] : [[channel, value]];
    }),
  );
  const ended = job?.runs.filter(({ state }) => state !== 'recording') ?? [];
  return waitBefore({ endsMs: endsOf(ended), nowMs, coolDownMin, window, nowC, times });
}
