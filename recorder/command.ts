import type { SuvokMessage } from '../contract/bench-link.ts';
import type { RunPlan } from '../contract/recording.ts';

/** What an instrument that can make a run is told. */
export function commandFor(
  plan: RunPlan,
  afterS: number | undefined,
): Extract<SuvokMessage, { type: 'sweep' | 'steps' | 'coast' }> {
  const after = afterS === undefined ? {} : { afterS };
  const speeds = {
    ...(plan.fromRpm === null ? {} : { fromRpm: plan.fromRpm }),
    ...(plan.toRpm === null ? {} : { toRpm: plan.toRpm }),
  };
  switch (plan.kind) {
    case 'step':
      return { type: 'steps', ...after, speedsRpm: plan.steps.speedsRpm, dwellS: plan.steps.dwellS };
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
