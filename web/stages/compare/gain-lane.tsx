import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter } from '../../charts/gutter.tsx';
import { Lane, type LaneLine } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { formatPower, formatRpm, signed } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { bandOf, extent, type LaneCommon } from './shown-setups.ts';

/** Test less baseline at each speed, with its pointwise interval; or why there is none. */
export function GainLane({ figures, view, range, atRpm, shown }: LaneCommon) {
  const { comparison } = figures;
  const unit = view.powerUnit;
  const pair = `${view.test.letter} less ${view.against.letter}`;
  if (!comparison) {
    return (
      <div className={classes.row}>
        <p className={classes.noGain}>{figures.noComparison}</p>
      </div>
    );
  }
  const { power } = comparison;
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
  const values = niceRange(Math.min(0, least), Math.max(0, most), 4, Math.max(spread, scale(1)));
  const inside = atRpm !== undefined && atRpm >= power.fromRpm && atRpm <= power.toRpm;
  const half = inside && judged ? interpolate(power.engineSpeedRpm, power.gainHalfWidth, atRpm) : Infinity;
  const value = inside ? interpolate(power.engineSpeedRpm, power.gain, atRpm) : NaN;
  return (
    <div className={classes.row}>
      <Lane
        name="Gain"
        unit={`${unit}, ${pair}${judged ? '; dotted: 95 % at each speed' : '; one run a side, no interval'}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{
          band: bandOf(view),
          gainArea: { rpm: power.engineSpeedRpm, values: gain.values, gain: 'var(--gain)', loss: 'var(--loss)' },
          zeroColour: 'var(--ink)',
        }}
        text={`Gain of ${view.test.letter} over ${view.against.letter} from ${formatRpm(power.fromRpm)} to ${formatRpm(power.toRpm)} rpm. ${comparison.sentence.map((phrase) => phrase.text).join('')}`}
      />
      <Gutter
        range={values}
        values={[
          {
            id: 'gain',
            label: `${view.test.letter} − ${view.against.letter}`,
            text: signed(formatPower(value, unit)),
            value: scale(value),
            // Coloured only where the interval at this speed is clear of zero.
            colour: Math.abs(value) > half ? (value < 0 ? 'var(--loss)' : 'var(--gain)') : 'var(--soft)',
          },
        ]}
      />
    </div>
  );
}
