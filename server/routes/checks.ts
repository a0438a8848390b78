import { z } from 'zod';
import type { Run } from '../../contract/records.ts';
import { checkHistory, type CheckRun } from '../../core/run-kinds/check-history.ts';
import type { Database } from '../../store/database.ts';
import { repeatsOn } from '../../store/run-power.ts';
import { checkRuns } from '../../store/runs.ts';
import { HttpRefusal } from '../http-refusal.ts';
import type { CurveView } from '../../core/figures/curve-of-run.ts';
import { loneCurve } from '../lone-curve.ts';
import type { ContractRoutes } from './contract-routes.ts';

type Reduced = Pick<CheckRun, 'engineSpeedRpm' | 'powerKw'> | undefined;

/** A check run stands for the dyno, not for a job: it is smoothed as it alone needs. */
const checkView: CurveView = { standard: 'sae-j1349', share: 1, smoothing: 'auto' };

const query = z.object({ device: z.string().min(1).max(64), job: z.coerce.number().int().positive().optional() });

/** A dyno's check runs and the repeatability that they show; figures are those of SAE J1349 with automatic smoothing. */
export function checkRoutes(routes: ContractRoutes, database: Database): void {
  /** Curves of check runs: a recording never changes once it has ended, and its air and machine are copied into it. */
  const curves = new Map<number, Promise<Reduced>>();

  const cached = (run: Run) => {
    const made = curves.get(run.id) ?? reduced(database, run);
    curves.set(run.id, made);
    // What failed on its way is made anew at the next look.
    made.catch(() => curves.delete(run.id));
    return made;
  };

  routes.get('/check-history', async (request, response) => {
    const asked = query.safeParse(request.query);
    if (!asked.success) throw new HttpRefusal(400, 'Name the instrument: ?device=…');
    const runs = await checkRuns(database, asked.data.device);
    const usable: CheckRun[] = [];
    const apart: number[] = [];
    for (const run of runs) {
      const curve = await cached(run);
      if (!curve) apart.push(run.id);
      else
        usable.push({
          id: run.id,
          label: run.label ?? `run ${run.id}`,
          car: `${run.vehicle}${run.gear ? `, ${run.gear}` : ''}`,
          startedAt: new Date(run.startedAt),
          ...curve,
        });
    }
    const history = checkHistory(usable);
    const repeats = await repeatsOn(database, asked.data.device, asked.data.job);
    response.json({ ...history, apart: [...apart, ...history.apart], repeats });
  });
}

async function reduced(database: Database, run: Run): Promise<Reduced> {
  const curve = await loneCurve(database, run, checkView);
  return curve && { engineSpeedRpm: curve.engineSpeedRpm, powerKw: curve.powerKw };
}
