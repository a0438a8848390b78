import { useMemo } from 'react';
import { peakOf } from '../../../core/curve/peak.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { Lane, type LaneLine, type LaneProps } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { setupDash } from '../../setups/setup-colour.ts';
import { formatPower, formatRpm, formatTorque } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { bandOf, extent, type LaneCommon, type LaneDrawn } from './shown-setups.ts';

function linesOf(
  { shown, figures, view }: LaneDrawn,
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
  const props = useMemo(() => powerLane({ view, figures, shown, range }), [view, figures, shown, range]);
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  return (
    <div className={classes.row}>
      <Lane {...props} />
      <Gutter range={props.values} values={meansAt(lane, 'power', scale, (kw) => formatPower(kw, view.powerUnit))} />
    </div>
  );
}

function powerLane(drawn: LaneDrawn): LaneProps {
  const { view, figures, shown, range } = drawn;
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const lines = linesOf(drawn, 'power', scale);
  const [least, most] = extent(lines);
  const values = niceRange(least, most + (most - least) * 0.09, 5);
  const top = shown.at(-1)!;
  const peak = peakOf(top.figures.power.engineSpeedRpm, top.figures.power.values);
  const peakText = formatPower(peak.value, view.powerUnit);
  const compared = figures.comparison?.power;
  const bound = (sign: 1 | -1) =>
    compared!.baseline.map((kw, index) => scale(kw + sign * compared!.repeatability[index]!));
  return {
    name: 'Power',
    unit: `${view.powerUnit}${axisNote(values.least)}`,
    lines,
    range,
    values,
    decoration: {
      band: bandOf(view),
      peak: {
        rpm: peak.rpm,
        value: scale(peak.value),
        text: `${peakText} at ${formatRpm(peak.rpm)}`,
        colour: top.colour,
      },
      envelope:
        compared && !Number.isNaN(compared.repeatability[0]!)
          ? { rpm: compared.engineSpeedRpm, low: bound(-1), high: bound(1), colour: 'var(--ink)' }
          : undefined,
    },
    text: `Power of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed; ${top.setup.letter} peaks at ${peakText} ${view.powerUnit} at ${formatRpm(peak.rpm)} rpm.`,
  };
}

function axisNote(least: number): string {
  return least === 0 ? '' : `; axis from ${least}`;
}

/** Engine-referred torque of the setups shown. */
export function TorqueLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  const props = useMemo(() => torqueLane({ view, figures, shown, range }), [view, figures, shown, range]);
  const scale = (newtonMetres: number) => convert(newtonMetres, 'N·m', view.torqueUnit);
  return (
    <div className={classes.row}>
      <Lane {...props} />
      <Gutter
        range={props.values}
        values={meansAt(lane, 'torque', scale, (value) => formatTorque(value, view.torqueUnit))}
      />
    </div>
  );
}

function torqueLane(drawn: LaneDrawn): LaneProps {
  const { view, shown, range } = drawn;
  const lines = linesOf(drawn, 'torque', (newtonMetres) => convert(newtonMetres, 'N·m', view.torqueUnit));
  const values = niceRange(...extent(lines), 4);
  return {
    name: 'Torque',
    unit: `${view.torqueUnit}, engine-referred${axisNote(values.least)}`,
    lines,
    range,
    values,
    decoration: { band: bandOf(view) },
    text: `Torque of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed, in ${view.torqueUnit}.`,
  };
}
