import { useMemo } from 'react';
import { peakOf } from '../../../core/curve/peak.ts';
import type { RawPoints } from '../../../core/reduction/raw-points.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { LaneMarks } from '../../charts/lane-marks.tsx';
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
    .filter((run) => run.setupId === view.test.id && run.counted && (view.runs?.includes(run.label) ?? true))
    .map((run) => ({
      id: `run-${run.id}`,
      rpm: run.curve.engineSpeedRpm,
      values: (quantity === 'power' ? run.curve.powerKw : run.curve.torqueNm).map(scale),
      colour: shown.at(-1)!.colour,
      width: 1,
      opacity: 0.4,
    }));
  const means = shown.map(({ setup, name, figures: one, colour, isTest }) => ({
    id: `mean-${name}`,
    rpm: one[quantity].engineSpeedRpm,
    values: one[quantity].values.map(scale),
    colour,
    width: isTest ? 2.6 : 2,
    dash: setupDash(setup.letter),
  }));
  const raw =
    quantity === 'power' && view.raw
      ? figures.runs.flatMap((run) => (run.raw ? rawLine(run.id, run.raw, scale, shown.at(-1)!.colour) : []))
      : [];
  return [...raw, ...single, ...means];
}

/** A run's unsmoothed points, behind the lines. */
function rawLine(id: number, raw: RawPoints, scale: (value: number) => number, colour: string): LaneLine {
  return {
    id: `raw-${id}`,
    rpm: raw.engineSpeedRpm,
    values: raw.powerKw.map(scale),
    colour,
    width: 0,
    opacity: 0.35,
    points: true,
  };
}

/** Where checks found something on the compared runs, on the run's own line. */
function marksOf({ figures, view }: LaneDrawn, scale: (value: number) => number) {
  return figures.runs
    .filter((run) => run.counted && [view.test.id, view.against.id].includes(run.setupId))
    .flatMap(({ curve, label }) =>
      curve.checks.flatMap(({ fromRpm, toRpm, severity, message }) => {
        if (fromRpm === undefined || toRpm === undefined) return [];
        const { engineSpeedRpm, powerKw } = curve;
        const rpm = Math.min(Math.max((fromRpm + toRpm) / 2, engineSpeedRpm[0]!), engineSpeedRpm.at(-1)!);
        return [
          { rpm, value: scale(interpolate(engineSpeedRpm, powerKw, rpm)), severity, why: `${label}: ${message}` },
        ];
      }),
    );
}

function meansAt(
  { shown, atRpm }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
  write: (value: number) => string,
): GutterValue[] {
  if (atRpm === undefined) return [];
  return shown.flatMap(({ name, figures: one, colour }) => {
    const { engineSpeedRpm, values } = one[quantity];
    if (atRpm < engineSpeedRpm[0]! || atRpm > engineSpeedRpm[engineSpeedRpm.length - 1]!) return [];
    const value = interpolate(engineSpeedRpm, values, atRpm);
    return [
      { id: name, label: name.length > 2 ? name : `${name} mean`, text: write(value), value: scale(value), colour },
    ];
  });
}

/** Power of the setups shown: means heavy, the test's runs thin, the baseline's repeatability grey. */
export function PowerLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  const props = useMemo(() => powerLane({ view, figures, shown, range }), [view, figures, shown, range]);
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const marks = useMemo(() => marksOf({ view, figures, shown, range }, (kw) => convert(kw, 'kW', view.powerUnit)), [view, figures, shown, range]); // prettier-ignore
  return (
    <div className={classes.row}>
      <Lane {...props} />
      <LaneMarks marks={marks} range={range} values={props.values} />
      <Gutter range={props.values} values={meansAt(lane, 'power', scale, (kw) => formatPower(kw, view.powerUnit))} />
    </div>
  );
}

function powerLane(drawn: LaneDrawn): LaneProps {
  const { view, figures, shown, range } = drawn;
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const lines = linesOf(drawn, 'power', scale);
  const [least, most] = extent(
    lines.filter((line) => !line.points),
    range,
  );
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
      marks: marksOf(drawn, scale),
      markColours: { mind: 'var(--ink)', stop: 'var(--stop)', ground: 'var(--ground)' },
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
    text: `Power of ${shown.map(({ name }) => name).join(', ')} over engine speed; ${top.name} peaks at ${peakText} ${view.powerUnit} at ${formatRpm(peak.rpm)} rpm.`,
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
  const values = niceRange(...extent(lines, range), 4);
  return {
    name: 'Torque',
    unit: `${view.torqueUnit}, engine-referred${axisNote(values.least)}`,
    lines,
    range,
    values,
    decoration: { band: bandOf(view) },
    text: `Torque of ${shown.map(({ name }) => name).join(', ')} over engine speed, in ${view.torqueUnit}.`,
  };
}
