import { useMemo } from 'react';
import type { Comparison } from '../../../core/gain/comparison.ts';
import type { ComparisonFigures } from '../../../core/gain/job-figures.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { Lane, type LaneLine, type LaneProps } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { formatPower, formatRpm, signed } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { bandOf, extent, type LaneCommon, type LaneDrawn } from './shown-setups.ts';
import type { CompareView } from './view.ts';

/** Test less baseline at each speed, with its pointwise interval; or why there is none. */
export function GainLane({ figures, view, range, atRpm, shown }: LaneCommon) {
  const { comparison, noComparison } = figures;
  const props = useMemo(
    () => comparison && gainLane(comparison, { figures, view, range, shown }),
    [comparison, figures, view, range, shown],
  );
  return (
    <div className={classes.row}>
      {comparison && props ? (
        <>
          <Lane {...props} />
          <Gutter range={props.values} values={[gainAt(comparison.power, view, atRpm)]} />
        </>
      ) : (
        <p className={classes.noGain}>{noComparison}</p>
      )}
    </div>
  );
}

function gainAt(power: Comparison, view: CompareView, atRpm: number | undefined): GutterValue {
  const inside = atRpm !== undefined && atRpm >= power.fromRpm && atRpm <= power.toRpm;
  const value = inside ? interpolate(power.engineSpeedRpm, power.gain, atRpm) : NaN;
  const half = inside ? interpolate(power.engineSpeedRpm, power.gainHalfWidth, atRpm) : NaN;
  return {
    id: 'gain',
    label: `${view.test.letter} − ${view.against.letter}`,
    text: signed(formatPower(value, view.powerUnit)),
    value: convert(value, 'kW', view.powerUnit),
    // Coloured only where the interval at this speed is clear of zero.
    colour: Math.abs(value) > half ? (value < 0 ? 'var(--loss)' : 'var(--gain)') : 'var(--soft)',
  };
}

function gainLane({ power, sentence }: ComparisonFigures, { view, range, shown }: LaneDrawn): LaneProps {
  const unit = view.powerUnit;
  const scale = (kw: number) => convert(kw, 'kW', unit);
  const judged = !Number.isNaN(power.gainHalfWidth[0]!);
  const bound = (sign: 1 | -1): LaneLine => ({
    id: `bound${sign}`,
    rpm: power.engineSpeedRpm,
    values: power.gain.map((kw, index) => scale(kw + sign * power.gainHalfWidth[index]!)),
    colour: 'var(--soft)',
    width: 1,
    opacity: 0.8,
    dash: [2, 3],
  });
  const gain: LaneLine = {
    id: 'gain',
    rpm: power.engineSpeedRpm,
    values: power.gain.map(scale),
    colour: shown.at(-1)!.colour,
    width: 2.2,
  };
  const lines = judged ? [bound(1), bound(-1), gain] : [gain];
  const spread = judged ? scale(4 * Math.max(...power.gainHalfWidth)) : 0;
  const [least, most] = extent(lines);
  const pair = `${view.test.letter} less ${view.against.letter}`;
  return {
    name: 'Gain',
    unit: `${unit}, ${pair}${judged ? '; dotted: 95 % at each speed' : '; one run a side, no interval'}`,
    lines,
    range,
    values: niceRange(Math.min(0, least), Math.max(0, most), 4, Math.max(spread, scale(1))),
    decoration: {
      band: bandOf(view),
      gainArea: { rpm: power.engineSpeedRpm, values: gain.values, gain: 'var(--gain)', loss: 'var(--loss)' },
      zeroColour: 'var(--ink)',
    },
    text: `Gain of ${view.test.letter} over ${view.against.letter} from ${formatRpm(power.fromRpm)} to ${formatRpm(power.toRpm)} rpm. ${sentence.map((phrase) => phrase.text).join('')}`,
  };
}
