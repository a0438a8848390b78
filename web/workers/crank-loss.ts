import type { Run } from '../../contract/records.ts';
import { readCrankLoss, type CrankLoss } from '../../core/driveline/crank.ts';
import { coastDown } from '../../core/losses/coast-down.ts';
import { Refusal } from '../../core/refusal.ts';
import { recordingFromBytes } from './recording-bytes.ts';
import { recordingOf } from './run-sweeps.ts';

/** The loss that an estimate rests on, or why there is none: a coast-down may be gone, or have measured nothing. */
export async function crankLossOf(text: string, runs: readonly Run[]): Promise<{ loss?: CrankLoss; why?: string }> {
  try {
    return { loss: /^\d/.test(text) ? readCrankLoss(text) : await coastLossOf(text, runs) };
  } catch (error) {
    if (error instanceof Refusal) return { why: error.message };
    throw error;
  }
}

/** @throws Refusal when there is no such coast-down, or it measured nothing */
async function coastLossOf(label: string, runs: readonly Run[]): Promise<CrankLoss> {
  const run = runs.find((one) => one.label === label && one.kind === 'coast-down');
  if (!run) throw new Refusal(`This job has no coast-down ${label}.`);
  const { aNm, bNmPerRadS, cNmPerRadS2 } = coastDown(recordingFromBytes(await recordingOf(run)), run.dyno);
  // The machine's own losses are in every figure at the wheels already.
  const own = run.dyno.parasitic;
  return {
    from: 'coast-down',
    label,
    driveline: {
      aNm: aNm.value - own.aNm,
      bNmPerRadS: bNmPerRadS.value - own.bNmPerRadS,
      cNmPerRadS2: cNmPerRadS2.value - own.cNmPerRadS2,
    },
  };
}
