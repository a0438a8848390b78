import { sampleAt } from '../numerics/sample-at.ts';
import { bandMean } from '../curve/band-mean.ts';
import type { ChannelMeans } from '../log/view/channel-means.ts';
import { greatestAt, interpolate } from '../numerics/interpolation.ts';
import { meanDifference, type MeanDifference } from '../statistics/mean-difference.ts';
import { commonSpeeds } from './run-curve.ts';

/** The channels of one run over engine speed. */
export type RunChannels = ReadonlyMap<string, ChannelMeans>;

/** How a logged channel differs between two sides, over the engine speeds that all of their runs logged it at. */
export interface ChannelChange {
  channel: string;
  unit: string;
  fromRpm: number;
  toRpm: number;
  /** Of the means over the range; its interval is the channel's by itself. */
  mean: MeanDifference;
  /** Where the difference at one speed is greatest, gain or loss, and how large it is there. */
  greatest: { rpm: number; difference: MeanDifference };
  /** The larger of both in units of one run's own spread; NaN where no setup was repeated. */
  inSpreads: number;
}

/** A difference below this share of the reading is rounding. */
const nothing = 1e-9;

/**
 * What else changed between two sides: each channel that both logged, the
 * largest in its own spread first, then those without a spread by their share
 * of the reading. Intervals only: nothing is claimed of a channel.
 *
 * @param groups channels of the test's runs, the baseline's, then of the setups alike, which tell of the spread
 * @param band rpm; the range that all runs of a channel share where left out, or where one does not cover it
 */
export function channelChanges(
  groups: readonly [readonly RunChannels[], readonly RunChannels[], ...(readonly RunChannels[])[]],
  band?: readonly [number, number],
): ChannelChange[] {
  const names = new Set(groups[0].flatMap((run) => [...run.keys()]));
  const changes = [...names].flatMap((channel): ChannelChange[] => {
    const of = (runs: readonly RunChannels[]) => runs.flatMap((run) => run.get(channel) ?? []);
    const [test, baseline, ...others] = groups;
    const [ofTest, ofBaseline, alike] = [of(test), of(baseline), others.map(of)];
    const speeds = ofTest.length > 0 && ofBaseline.length > 0 ? commonSpeeds([...ofTest, ...ofBaseline]) : undefined;
    if (!speeds) return [];
    const [first, last] = [sampleAt(speeds, 0), sampleAt(speeds, speeds.length - 1)];
    const [fromRpm, toRpm] = band && band[0] >= first && band[1] <= last ? band : [first, last];
    const difference = (figure: (run: ChannelMeans) => number) =>
      meanDifference(ofTest.map(figure), ofBaseline.map(figure), {
        alike: alike.map((runs) => runs.filter((run) => reaches(run, fromRpm, toRpm)).map(figure)),
      });
    const at = (rpm: number) => difference((run) => interpolate(run.engineSpeedRpm, run.values, rpm));
    const within = speeds.filter((rpm) => rpm >= fromRpm && rpm <= toRpm);
    const places = Array.from(within, at);
    const greatest = greatestAt(Float64Array.from(places, (place) => Math.abs(place.difference)));
    const mean = difference((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm));
    return [
      {
        channel,
        unit: ofTest[0]!.unit,
        fromRpm,
        toRpm,
        mean,
        greatest: { rpm: sampleAt(within, greatest), difference: places[greatest]! },
        inSpreads: Math.max(inSpreadsOf(mean), inSpreadsOf(places[greatest]!)),
      },
    ];
  });
  return changes.sort((a, b) => orderOf(b) - orderOf(a) || shareOf(b) - shareOf(a));
}

function reaches({ engineSpeedRpm }: ChannelMeans, fromRpm: number, toRpm: number): boolean {
  return sampleAt(engineSpeedRpm, 0) <= fromRpm && sampleAt(engineSpeedRpm, engineSpeedRpm.length - 1) >= toRpm;
}

function inSpreadsOf({ difference, test, baseline, standardDeviation }: MeanDifference): number {
  if (Number.isNaN(standardDeviation)) return NaN;
  const isNothing = Math.abs(difference) <= nothing * (Math.abs(test) + Math.abs(baseline));
  return isNothing ? 0 : Math.abs(difference) / standardDeviation;
}

/** Channels without a spread come last. */
function orderOf({ inSpreads }: ChannelChange): number {
  return Number.isNaN(inSpreads) ? -1 : Math.min(inSpreads, Number.MAX_VALUE);
}

function shareOf({ mean: { difference, test, baseline } }: ChannelChange): number {
  const size = Math.abs(test) + Math.abs(baseline);
  return size > 0 ? Math.abs(difference) / size : 0;
}
