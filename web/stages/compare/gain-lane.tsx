import { useMemo } from 'react';
import type { ComparisonFigures } from '../../../core/gain/job-comparison.ts';
import type { GainSpan } from '../../../core/gain/spans.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { Lane, type LaneLine, type LaneProps } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { formatPower, formatRpm, signed } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { bandOf, extent, type LaneCommon, type LaneDrawn } from './shown-setups.ts';
import type { CompareView } from './view.ts';

/** Test less baseline at each speed, with the band that holds at all speeds at once; or why there is none. */
export function GainLane({ figures, view, range, at, shown }: LaneCommon) {
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
          <Gutter
            range={props.values}
            values={[gainAt(comparison, view, at === undefined ? undefined : shown.at(-1)!.place.rpm(at))]}
          />
        </>
      ) : (
        <p className={classes.noGain}>{noComparison && 'No gain to draw.'}</p>
      )}
    </div>
  );
}

function gainAt({ power, withheld }: ComparisonFigures, view: CompareView, atRpm: number | undefined): GutterValue {
  const inside = atRpm !== undefined && atRpm >= power.fromRpm && atRpm <= power.toRpm;
  const value = inside ? interpolate(power.engineSpeedRpm, power.gain, atRpm) : NaN;
  const clear = inside && !withheld && spanAround(power.spans, atRpm);
  return {
    id: 'gain',
    label: view.runs || view.againstRuns || view.elsewhere ? 'gain' : `${view.test.letter} − ${view.against.letter}`,
    text: signed(formatPower(value, view.powerUnit)),
    value: convert(value, 'kW', view.powerUnit),
    // Coloured only where the gain is clear of scatter at all speeds at once.
    colour: clear ? (value < 0 ? 'var(--loss)' : 'var(--gain)') : 'var(--soft)',
  };
}

function spanAround(spans: readonly GainSpan[], rpm: number): boolean {
  return spans.some((span) => rpm >= span.fromRpm && rpm <= span.toRpm);
}

function gainLane({ power, sentence, withheld }: ComparisonFigures, drawn: LaneDrawn): LaneProps {
  const { view, range, shown } = drawn;
  const unit = view.powerUnit;
  const scale = (kw: number) => convert(kw, 'kW', unit);
  const judged = !Number.isNaN(power.gainHalfWidth[0]!);
  const bound = (sign: 1 | -1) => power.gain.map((kw, index) => scale(kw + sign * power.gainHalfWidth[index]!));
  // A gain is one at the same engine speed; it stands where the test reached that speed.
  const x = shown.at(-1)!.place.xs(power.engineSpeedRpm);
  const edge = (sign: 1 | -1): LaneLine => ({
    id: `bound${sign}`,
    x,
    values: bound(sign),
    colour: 'var(--soft)',
    width: 1,
    opacity: 0.8,
    dash: [2, 3],
  });
  const gain: LaneLine = {
    id: 'gain',
    x,
    values: power.gain.map(scale),
    colour: shown.at(-1)!.colour,
    width: 2.2,
  };
  // A band wider than the gain is cut off rather than let it flatten the line.
  const spread = judged ? scale(2.5 * median(power.gainHalfWidth)) : 0;
  const [least, most] = extent([gain], range);
  const reach = Math.max(Math.abs(least), Math.abs(most), spread);
  const pair = `${shown.at(-1)!.name} less ${shown.find((one) => one.setup.id === view.against.id && !one.isTest)?.name ?? view.against.letter}`;
  // Nothing is coloured that scatter could have made.
  const clear = power.gain.map((kw, index) =>
    !withheld && spanAround(power.spans, power.engineSpeedRpm[index]!) ? scale(kw) : 0,
  );
  return {
    name: 'Gain',
    unit: `${unit}, ${pair}${judged ? '; grey: 95 % band, all speeds at once' : '; one run a side, no interval'}`,
    lines: judged ? [edge(1), edge(-1), gain] : [gain],
    range,
    values: niceRange(
      Math.max(-reach, Math.min(0, least - spread)),
      Math.min(reach + spread, Math.max(0, most + spread)),
      4,
      scale(1),
    ),
    decoration: {
      band: bandOf(drawn),
      envelope: judged ? { x, low: bound(-1), high: bound(1), colour: 'var(--ink)' } : undefined,
      gainArea: { x, values: clear, gain: 'var(--gain)', loss: 'var(--loss)' },
      zeroColour: 'var(--ink)',
    },
    text: `Gain of ${view.test.letter} over ${view.against.letter} from ${formatRpm(power.fromRpm)} to ${formatRpm(power.toRpm)} rpm. ${sentence.map((phrase) => phrase.text).join('')}`,
  };
}

function median(values: Float64Array): number {
  return values.slice().sort()[values.length >> 1]!;
}
