import type { SuvokMessage } from '../../contract/instruments/bench-link.ts';
import type { RunPlan, StepTable } from '../../contract/instruments/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Device } from '../devices/device.ts';

/** Kinds that a load must hold the speed for. */
const loadedKinds: readonly RunPlan['kind'][] = ['part-load', 'transient', 'cruise'];

/**
 * What a dyno is told when a run is announced; nothing where there is nothing to tell.
 * @throws Refusal when it can be told to make a run, but not this one
 */
export function commandTo(
  { hello, dyno }: Pick<Device, 'hello' | 'dyno'>,
  plan: RunPlan,
  afterS: number | undefined,
): Command | undefined {
  if (dyno?.kind === 'inertia-roller' && loadedKinds.includes(plan.kind))
    throw new Refusal(
      'An inertia roller has no load that could hold a speed, so this kind of run cannot be made on it. Choose another kind.',
    );
  const command = commandFor(plan, afterS);
  // An idle or a start needs no machine: where it cannot be told to, its driver does it.
  const needed = command !== undefined && command.type !== 'idle' && command.type !== 'start';
  if (!needed || !hello.commands.includes('sweep') || hello.commands.includes(command.type)) return command;
  const name = hello.name ?? hello.device;
  throw new Refusal(
    plan.kind === 'step'
      ? `${name} has no load that could hold a speed. Choose another kind of run.`
      : `${name} cannot make a run of this kind by itself.`,
  );
}

type Command = Extract<SuvokMessage, { type: 'sweep' | 'steps' | 'coast' | 'idle' | 'start' | 'transient' | 'cruise' }>;

/** What an instrument that can make a run is told; nothing where its holds are named one by one while it goes on. */
function commandFor(plan: RunPlan, afterS: number | undefined): Command | undefined {
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
