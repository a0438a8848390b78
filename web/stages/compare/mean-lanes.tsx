import { peakOf } from '../../../core/curve/peak.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { Lane, type LaneLine } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { setupDash } from '../../setups/setup-colour.ts';
import { formatPower, formatRpm, formatTorque } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { bandOf, extent, type LaneCommon } from './shown-setups.ts';

function linesOf(
  { shown, figures, view }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
): LaneLine[] {
  const single = figures.runs
    .filter((run) => run.setupId === view.test.id && run.counted)
    .map((run) => ({
      id: `run-${run.id}`,
      rpm: run.curve.engineSpeedRpm,
      values: (quantity === 'power' ? run.curve.powerKw : run.curve.torqueNm).map(scale),
      colour: shown.at(-1)!.colour,
      width: 1,
      opacity: 0.4,
    }));
  const means = shown.map(({ setup, figures: one, colour, isTest }) => ({
    id: `setup-${setup.id}`,
    rpm: one[quantity].engineSpeedRpm,
    values: one[quantity].values.map(scale),
    colour,
    width: isTest ? 2.6 : 2,
    dash: setupDash(setup.letter),
  }));
  return [...single, ...means];
}

function meansAt(
  { shown, atRpm }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
  write: (value: number) => string,
): GutterValue[] {
  if (atRpm === undefined) return [];
  return shown.flatMap(({ setup, figures: one, colour }) => {
    const { engineSpeedRpm, values } = one[quantity];
    if (atRpm < engineSpeedRpm[0]! || atRpm > engineSpeedRpm[engineSpeedRpm.length - 1]!) return [];
    const value = interpolate(engineSpeedRpm, values, atRpm);
    return [{ id: setup.letter, label: `${setup.letter} mean`, text: write(value), value: scale(value), colour }];
  });
}

/** Power of the setups shown: means heavy, the test's runs thin, the baseline's repeatability grey. */
export function PowerLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const lines = linesOf(lane, 'power', scale);
  const [least, most] = extent(lines);
  const values = niceRange(least, most + (most - least) * 0.09, 5);
  const top = shown.at(-1)!;
  const peak = peakOf(top.figures.power.engineSpeedRpm, top.figures.power.values);
  const { comparison } = figures;
  const against = shown.find(({ setup }) => setup.id === view.against.id);
  return (
    <div className={classes.row}>
      <Lane
        name="Power"
        unit={`${view.powerUnit}${axisNote(values.least)}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{
          band: bandOf(view),
          peak: {
            rpm: peak.rpm,
            value: scale(peak.value),
            text: `${formatPower(peak.value, view.powerUnit)} at ${formatRpm(peak.rpm)}`,
            colour: top.colour,
          },
          envelope:
            comparison && against && !Number.isNaN(comparison.power.repeatability[0]!)
              ? {
                  rpm: comparison.power.engineSpeedRpm,
                  low: comparison.power.baseline.map((kw, index) => scale(kw - comparison.power.repeatability[index]!)),
                  high: comparison.power.baseline.map((kw, index) =>
                    scale(kw + comparison.power.repeatability[index]!),
                  ),
                  colour: 'var(--ink)',
                }
              : undefined,
        }}
        text={`Power of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed; ${top.setup.letter} peaks at ${formatPower(peak.value, view.powerUnit)} ${view.powerUnit} at ${formatRpm(peak.rpm)} rpm.`}
      />
      <Gutter range={values} values={meansAt(lane, 'power', scale, (kw) => formatPower(kw, view.powerUnit))} />
    </div>
  );
}

function axisNote(least: number): string {
  return least === 0 ? '' : `; axis from ${least}`;
}

/** Engine-referred torque of the setups shown. */
export function TorqueLane(lane: LaneCommon) {
  const { view, range, shown } = lane;
  const scale = (newtonMetres: number) => convert(newtonMetres, 'N·m', view.torqueUnit);
  const lines = linesOf(lane, 'torque', scale);
  const values = niceRange(...extent(lines), 4);
  return (
    <div className={classes.row}>
      <Lane
        name="Torque"
        unit={`${view.torqueUnit}, engine-referred${axisNote(values.least)}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{ band: bandOf(view) }}
        text={`Torque of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed, in ${view.torqueUnit}.`}
      />
      <Gutter range={values} values={meansAt(lane, 'torque', scale, (value) => formatTorque(value, view.torqueUnit))} />
    </div>
  );
}
