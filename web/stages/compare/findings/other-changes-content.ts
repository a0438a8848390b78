import type { ChannelChange } from '../../../../core/comparison/channel-changes.ts';
import type { MeanDifference } from '../../../../core/statistics/mean-difference.ts';
import { formatRpm, halfWidthText, signed } from '../../../../core/wording/figures.ts';
import { differenceDigits } from '../../../../core/units/difference-digits.ts';
import { trueMinus } from '../../../../core/units/fixed-digits.ts';
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
    const digits = digitsOf(mean);
    const written = writer(digits);
    const [onMean, most] = [differenceOf(mean, digits), differenceOf(greatest.difference, digits)];
    const { rpm } = greatest;
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
      difference: onMean.figure,
      halfWidth: onMean.half,
      greatest: `${most.figure}${most.half && ` ${most.half}`} at ${formatRpm(rpm)} rpm`,
    };
  });
}

/** A difference with its sign, and half of its interval, in the digits of its row, or those that tell it from nothing. */
function differenceOf({ difference, halfWidth }: MeanDifference, digits: number): { figure: string; half: string } {
  const written = writer(differenceDigits(difference, halfWidth, digits));
  const half = Number.isNaN(halfWidth) ? '' : `±${halfWidthText(written(halfWidth))}`;
  return { figure: signed(written(difference)), half };
}

const writer = (digits: number) => (value: number) => trueMinus(value.toFixed(digits));

/** One digit of the interval decides, two where the first is 1 or 2; never more than four of the reading, three without an interval. */
function digitsOf({ halfWidth, test, baseline }: MeanDifference): number {
  const size = Math.max(Math.abs(test), Math.abs(baseline));
  const least = halfWidth > 0 ? halfWidth / 3 : size / 100;
  const most = size > 0 ? Math.min(3, 3 - Math.floor(Math.log10(size))) : 0;
  return least > 0 ? Math.max(0, Math.min(most, -Math.floor(Math.log10(least)))) : 0;
}
