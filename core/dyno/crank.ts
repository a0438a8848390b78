import type { DynoProfile, LossCurve } from './dyno-profile.ts';
import { lossTorque } from './dyno-profile.ts';
import { Refusal } from '../refusal.ts';

/**
 * What is assumed to be lost between crankshaft and wheels: a share of the
 * crank's power and a fixed part, or what a coast-down measured without load.
 */
export type CrankLoss =
  | { from: 'assumed'; share: number; fixedKw: number }
  | {
      from: 'coast-down';
      /** The run that measured it, such as A6. */
      label: string;
      /** Torque at the drum beside the machine's own losses. */
      driveline: LossCurve;
    };

/** Nobody loses more than this share on the way. */
const mostShare = 0.5;
const mostFixedKw = 100;

/**
 * Power at the crank from power at the wheels, kW; an estimate. Assumed:
 * (P + fixed) ÷ (1 − share), the share being one of the crank's power.
 * Coast-down: P + T(ω)·ω, a lower bound, for unloaded drag misses what grows
 * with load.
 *
 * @param drumSpeedRadS used with a coast-down
 */
export function crankKw(wheelKw: number, loss: CrankLoss, drumSpeedRadS: number): number {
  if (loss.from === 'assumed') return (wheelKw + loss.fixedKw) / (1 - loss.share);
  return wheelKw + (Math.max(0, lossTorque(loss.driveline, drumSpeedRadS)) * drumSpeedRadS) / 1000;
}

/**
 * Reads `15`, or `12+3`: percent of the crank's power, and kW beside it.
 * @throws Refusal when it is neither, or more than any driveline loses
 */
export function readCrankLoss(text: string): CrankLoss {
  const found = /^(\d+(?:\.\d+)?)(?:\+(\d+(?:\.\d+)?))?$/.exec(text);
  const share = Number(found?.[1]) / 100;
  const fixedKw = Number(found?.[2] ?? 0);
  if (!found || !(share <= mostShare) || !(fixedKw <= mostFixedKw))
    throw new Refusal(
      `A loss on the way to the wheels is written as percent, such as 15, or percent and kW, such as 12+3; at most ${100 * mostShare} % and ${mostFixedKw} kW: not "${text}".`,
    );
  return { from: 'assumed', share, fixedKw };
}

/**
 * The loss that a coast-down measured between engine and drum: the machine's
 * own losses are in every figure at the wheels already, so they are taken off.
 */
export function crankLossOfCoast(
  { aNm, bNmPerRadS, cNmPerRadS2 }: CoastDownLoss,
  { parasitic: machineLoss }: Pick<DynoProfile, 'parasitic'>,
  label: string,
): CrankLoss {
  return {
    from: 'coast-down',
    label,
    driveline: {
      aNm: aNm.value - machineLoss.aNm,
      bNmPerRadS: bNmPerRadS.value - machineLoss.bNmPerRadS,
      cNmPerRadS2: cNmPerRadS2.value - machineLoss.cNmPerRadS2,
    },
  };
}

/** Loss torque a + b·ω + c·ω² that a coast-down found; N·m, ω in rad/s of the drum. */
type CoastDownLoss = Record<keyof LossCurve, { value: number }>;

/** As `readCrankLoss` reads it. */
export function writeCrankLoss(share: number, fixedKw: number): string {
  const percent = Number((100 * share).toFixed(2));
  return fixedKw > 0 ? `${percent}+${Number(fixedKw.toFixed(2))}` : String(percent);
}

/** What the estimate rests on, in a few words that stand beside every figure. */
export function crankAssumption(loss: CrankLoss): string {
  if (loss.from === 'coast-down') return `coast-down ${loss.label}, a lower bound`;
  const percent = Number((100 * loss.share).toFixed(1));
  return `${percent} %${loss.fixedKw > 0 ? ` and ${Number(loss.fixedKw.toFixed(1))} kW` : ''} lost, assumed`;
}
