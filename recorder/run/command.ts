import type { SuvokMessage } from '../../contract/instruments/bench-link.ts';
import type { RunPlan, StepTable } from '../../contract/instruments/recording.ts';

/** What an instrument that can make a run is told; nothing where its holds are named one by one while it goes on. */
export function commandFor(
  plan: RunPlan,
  afterS: number | undefined,
):
  | Extract<SuvokMessage, { type: 'sweep' | 'steps' | 'coast' | 'idle' | 'start' | 'transient' | 'cruise' }>
  | undefined {
  const after = afterS === undefined ? {} : { afterS };
  const speeds = {
    ...(plan.fromRpm === null ? {} : { fromRpm: plan.fromRpm }),
    ...(plan.toRpm === null ? {} : { toRpm: plan.toRpm }),
  };
  switch (plan.kind) {
    case 'step':
      return { type: 'steps', ...after, ...holdsOf(plan.steps), dwellS: plan.steps.dwellS };
    case 'part-load':
      return undefined;
    case 'idle':
      return { type: 'idle', ...after, forS: plan.ofKind.idleS };
    case 'cold-start':
      return { type: 'start', ...after, forS: plan.ofKind.startS };
    case 'transient':
      return { type: 'transient', ...after, engineSpeedRpm: plan.ofKind.heldRpm };
    case 'cruise':
      return {
        type: 'cruise',
        ...after,
        engineSpeedRpm: plan.ofKind.heldRpm,
        wheelKw: plan.ofKind.wheelKw,
        forS: plan.ofKind.cruiseS,
      };
    case 'coast-down':
      return { type: 'coast', ...after, ...speeds };
    default:
      return {
        type: 'sweep',
        ...after,
        ...speeds,
        ...(plan.rampRpmPerS === null ? {} : { rampRpmPerS: plan.rampRpmPerS }),
      };
  }
}

/** Every speed at every load, there and back again, so that no passage is longer than it need be. */
function holdsOf({ speedsRpm, loadsKpa }: StepTable): { speedsRpm: number[]; manifoldKpa?: number[] } {
  if (loadsKpa.length === 0) return { speedsRpm };
  const rows = loadsKpa.map((_, row) => (row % 2 ? speedsRpm.toReversed() : speedsRpm));
  return { speedsRpm: rows.flat(), manifoldKpa: loadsKpa.flatMap((kpa) => speedsRpm.map(() => kpa)) };
}
