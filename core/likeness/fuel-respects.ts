import { otherFuelPct } from '../fuel/ledger.ts';
import { all, known, type LikeForLikeInput, type RunConditions, type Unlikeness } from './run-conditions.ts';
import { meanOf } from '../numerics/mean.ts';

/** Content that changed between the sides, or within one: fuel was added without a new setup. */
export function ethanol({ test, baseline }: LikeForLikeInput): Unlikeness | undefined {
  const contents = (runs: typeof test) => known(runs.map((run) => run.ethanolPct));
  const [a, b] = [contents(test), contents(baseline)];
  const both = [...a, ...b];
  if (both.length < 2) return undefined;
  const apart = Math.max(...both) - Math.min(...both);
  if (apart < otherFuelPct) return undefined;
  const round = (value: number) => Math.round(value * 10) / 10;
  const between = a.length > 0 && b.length > 0 && Math.abs(meanOf(a) - meanOf(b)) >= otherFuelPct;
  return {
    id: 'other-ethanol',
    severity: 'mind',
    figure: round(apart),
    unit: '%',
    message: between
      ? `The fuel ledger had ${round(meanOf(a))} % ethanol for one side and ${round(meanOf(b))} % for the other.`
      : `The fuel’s ethanol content changed by ${round(apart)} % within a setup: fuel was added without a new one.`,
    matters: 'ethanol leans the mixture out by 0.3 to 0.4 % for each percent, and moves the knock limit',
    remedy: between
      ? 'Compare on one fuel, or write the fuel down as the change.'
      : 'Begin a setup for the new fuel and move those runs to it.',
  };
}

export function fuelMoving(input: LikeForLikeInput): Unlikeness | undefined {
  const runs = all(input).filter((run) => run.fuelMoving);
  if (runs.length === 0) return undefined;
  return {
    id: 'fuel-moving',
    severity: 'mind',
    message: `The ethanol reading had not settled when ${runs.map((run) => run.label).join(', ')} began: lines and pump still held the old fuel.`,
    matters: 'what was burnt is not known, and changed during the run',
    remedy: 'Run until two readings agree within 1 %, then repeat.',
  };
}

/** The controller's learned octane reading moves by less than this, %, while it rests. */
const restsPct = 3;

/** A controller that had learned another octane ran other ignition, whatever else was changed. */
export function learnedOctane(input: LikeForLikeInput): Unlikeness | undefined {
  const learned = (runs: readonly RunConditions[]) => known(runs.map((run) => run.learnedOctanePct));
  const both = [...learned(input.baseline), ...learned(input.test)];
  if (both.length < 2) return undefined;
  const [least, most] = [Math.min(...both), Math.max(...both)];
  if (most - least < restsPct) return undefined;
  return {
    id: 'learned-octane',
    severity: 'mind',
    figure: Math.round(most - least),
    unit: '%',
    message: `The controller’s learned octane was between ${Math.round(least)} and ${Math.round(most)} % in these runs: it had not settled.`,
    matters: 'ignition follows it, so the runs differ by more than the change',
    remedy: 'Make conditioning runs until it rests, then repeat both sides.',
  };
}
