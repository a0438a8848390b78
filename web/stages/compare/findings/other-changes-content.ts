import type { ChannelChange } from '../../../../core/comparison/channel-changes.ts';
import type { MeanDifference } from '../../../../core/statistics/mean-difference.ts';
import { formatRpm, halfWidthText, signed, trueMinus } from '../../../../core/wording/figures.ts';
import { asAirFuelRatio, keptUnit } from '../../../../core/recording/channels.ts';
import { differenceUnit, keptUnits, toldIn, type Units } from '../../../../core/units/told-units.ts';
import { laneName } from '../../../../core/scene/lane-list.ts';

/** A channel's difference as it is read. */
export interface OtherChangeLine {
  channel: string;
  /** With its unit, where it has one. */
  label: string;
  against: string;
  test: string;
  difference: string;
  /** Empty where no setup was repeated. */
  halfWidth: string;
  /** Where the difference is greatest at one speed, and how large. */
  greatest: string;
}

/** @param ratio stoichiometric, of the fuel that a mixture is told by */
export function otherChangeLines(
  changes: readonly ChannelChange[],
  units: Units = keptUnits,
  ratio?: number,
): OtherChangeLine[] {
  return changes.map(({ channel, unit: recorded, ...found }) => {
    const kept = keptUnit(channel, recorded);
    const { unit, of } = toldIn(kept, units, ratio);
    const apart = toldIn(differenceUnit(kept), units, ratio).of;
    const told = (figures: MeanDifference): MeanDifference => ({
      ...figures,
      test: of(figures.test),
      baseline: of(figures.baseline),
      difference: apart(figures.difference),
      halfWidth: apart(figures.halfWidth),
    });
    const mean = told(found.mean);
    const greatest = { ...found.greatest, difference: told(found.greatest.difference) };
    const written = writer(mean);
    const { rpm, difference } = greatest;
    return {
      channel,
      label:
        unit === ''
          ? laneName(channel)
          : unit === 'AFR'
            ? asAirFuelRatio(laneName(channel))
            : `${laneName(channel)}, ${unit}`,
      against: written(mean.baseline),
      test: written(mean.test),
      difference: signed(written(mean.difference)),
      halfWidth: halfOf(mean, written),
      greatest: `${signed(written(difference.difference))}${halfOf(difference, written) && ` ${halfOf(difference, written)}`} at ${formatRpm(rpm)} rpm`,
    };
  });
}

function halfOf({ halfWidth }: MeanDifference, written: (value: number) => string): string {
  return Number.isNaN(halfWidth) ? '' : `±${halfWidthText(written(halfWidth))}`;
}

/** One digit of the interval decides, two where the first is 1 or 2; never more than four of the reading, three without an interval. */
function writer({ halfWidth, test, baseline }: MeanDifference): (value: number) => string {
  const size = Math.max(Math.abs(test), Math.abs(baseline));
  const least = halfWidth > 0 ? halfWidth / 3 : size / 100;
  const most = size > 0 ? Math.min(3, 3 - Math.floor(Math.log10(size))) : 0;
  const decimals = least > 0 ? Math.max(0, Math.min(most, -Math.floor(Math.log10(least)))) : 0;
  return (value) => trueMinus(value.toFixed(decimals));
}
