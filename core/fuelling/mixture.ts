import { sampleAt } from '../numerics/sample-at.ts';
import { medianOf } from '../numerics/quantile.ts';
import type { PartLoadLog } from './axes.ts';

/** What is known of the probe and the target where the log does not tell it. */
export interface MixtureSettings {
  /** Taken off λ; a tailpipe probe reads lean. */
  probeOffset: number;
  /** Aimed at where the log has no target. */
  lambdaTarget: number;
}
export const usualMixture: MixtureSettings = { probeOffset: 0, lambdaTarget: 1 };

/** λ as read, and what it should have been at the engine; of the log's length. */
export interface MixtureSeries {
  lambda: Float64Array;
  target: Float64Array;
  /** What the controller's trims made of the fuel: (1 + short)·(1 + long). */
  trim: Float64Array;
  /** Exhaust flow ÷ its median: the gas takes longer to the probe when there is little of it. 1 where nothing tells it. */
  flow: Float64Array;
}

/** Flow further from the median than this is not believed. */
const flowBounds = [0.08, 8] as const;

/** The mixture of a log; undefined where no λ was logged. Trims that were not logged are none. */
export function mixtureSeries(log: PartLoadLog, settings: MixtureSettings = usualMixture): MixtureSeries | undefined {
  const { channels, time } = log;
  const read = channels.get('lambda');
  if (!read) return undefined;
  const [short, long] = [channels.get('fuelTrimShort'), channels.get('fuelTrimLong')];
  const share = (trim: Float64Array | undefined, index: number) => 1 + (trim?.[index] || 0) / 100;
  return {
    lambda: read.map((value) => value - settings.probeOffset),
    target: channels.get('lambdaTarget') ?? new Float64Array(time.length).fill(settings.lambdaTarget),
    trim: time.map((_, index) => share(short, index) * share(long, index)),
    flow: flowOf(log),
  };
}

function flowOf({ time, channels, engineSpeedRpm }: PartLoadLog): Float64Array {
  const measured = channels.get('airMassFlow');
  const manifold = channels.get('manifoldPressure');
  const flow =
    measured ??
    (manifold ? engineSpeedRpm.map((rpm, index) => rpm * sampleAt(manifold, index)) : engineSpeedRpm.slice());
  const usual = medianOf(flow.filter((value) => value > 0));
  return time.map((_, index) => {
    const share = sampleAt(flow, index) / usual;
    return Number.isFinite(share) ? Math.max(flowBounds[0], Math.min(flowBounds[1], share)) : 1;
  });
}
