import type { CheckHistoryRecord } from '../contract/job/check-history.ts';
import type { Run } from '../contract/job/records.ts';
import { isTheEngines } from '../core/checks/check.ts';
import { checkHistory, type CheckHistory, type CheckRun } from '../core/run-kinds/check-history.ts';
import type { CurveView } from '../core/figures/curve-of-run.ts';
import type { Database } from '../store/database/database.ts';
import { carriedHistory } from '../store/runs/carried-history.ts';
import { repeatsOn } from '../store/runs/run-power.ts';
import { checkRuns } from '../store/runs/runs.ts';
import { loneCurve } from './lone-curve.ts';

type Repeats = Awaited<ReturnType<typeof repeatsOn>>;
type Reduced = Pick<CheckRun, 'engineSpeedRpm' | 'powerKw'> | undefined;

/** A check run stands for the dyno, not for a job: it is smoothed as it alone needs. */
const checkView: CurveView = { standard: 'sae-j1349', share: 1, smoothing: 'auto' };

/** A dyno's check runs and the repeatability that they show; figures are those of SAE J1349 with automatic smoothing. */
export class DynoHistory {
  /** Curves of check runs: a recording never changes once it has ended, and its air and machine are copied into it. */
  private readonly curves = new Map<number, Promise<Reduced>>();

  constructor(private readonly database: Database) {}

  /** @param device the dyno's instrument @param jobId whose own repeats are left out */
  async of(
    device: string,
    jobId: number | undefined,
  ): Promise<(CheckHistory & { repeats: Repeats }) | CheckHistoryRecord> {
    const carried = jobId === undefined ? undefined : await carriedHistory(this.database, jobId, device);
    if (carried) return carried;
    const usable: CheckRun[] = [];
    const apart: number[] = [];
    for (const run of await checkRuns(this.database, device)) {
      const curve = await this.cached(run);
      if (!curve) apart.push(run.id);
      else
        usable.push({
          id: run.id,
          label: run.label ?? `run ${run.id}`,
          car: `${run.vehicle}${run.gear ? `, ${run.gear}` : ''}`,
          startedAt: new Date(run.startedAt),
          remounted: run.remounted,
          bay: run.bay ?? undefined,
          ...curve,
        });
    }
    const history = checkHistory(usable);
    const repeats = await repeatsOn(this.database, device, jobId);
    return { ...history, apart: [...apart, ...history.apart], repeats };
  }

  private cached(run: Run): Promise<Reduced> {
    const made = this.curves.get(run.id) ?? this.reduced(run);
    this.curves.set(run.id, made);
    // What failed on its way is made anew at the next look.
    made.catch(() => this.curves.delete(run.id));
    return made;
  }

  private async reduced(run: Run): Promise<Reduced> {
    const curve = await loneCurve(this.database, run, checkView);
    return curve && isTheEngines(curve.checks)
      ? { engineSpeedRpm: curve.engineSpeedRpm, powerKw: curve.powerKw }
      : undefined;
  }
}
