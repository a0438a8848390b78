import { useMemo } from 'react';
import { peakOf } from '../../../core/curve/peak.ts';
import type { RawPoints } from '../../../core/reduction/raw-points.ts';
import type { RunFigures } from '../../../core/gain/figured-run.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { LaneMarks } from '../../charts/lane-marks.tsx';
import { Lane, type LaneLine, type LaneProps } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { formatPower, formatRpm, formatTorque, scaleNote } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import { axisWords, placing, type Placing } from './lane-axis.ts';
import { bandOf, extent, startOfAll, type LaneCommon, type LaneDrawn, type Shown } from './shown-setups.ts';

function linesOf(
  drawn: Omit<LaneDrawn, 'range'>,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
): LaneLine[] {
  const { shown, view } = drawn;
  const single = singleRuns(drawn).map(({ run, colour, place }) => ({
    id: `run-${run.id}`,
    x: place.xs(run.curve.engineSpeedRpm),
    values: (quantity === 'power' ? run.curve.powerKw : run.curve.torqueNm).map(scale),
    colour,
    width: 1,
    opacity: 0.4,
  }));
  const means = shown.map(({ name, figures: one, colour, isTest, dash, place }) => ({
    id: `mean-${name}`,
    x: place.xs(one[quantity].engineSpeedRpm),
    values: one[quantity].values.map(scale),
    colour,
    width: isTest ? 2.6 : 2,
    dash,
  }));
  const raw =
    quantity === 'power' && view.raw
      ? singleRuns({ ...drawn, view: { ...view, singles: 'test' } }).flatMap(({ run, colour, place }) =>
          run.raw ? rawLine(run.id, run.raw, scale, colour, place) : [],
        )
      : [];
  return [...raw, ...single, ...means];
}

/** The counted runs drawn by themselves: those of the test, of every setup shown, or none. */
function singleRuns({
  shown,
  figures,
  view,
}: Omit<LaneDrawn, 'range'>): { run: RunFigures; colour: string; place: Placing }[] {
  const zeroRpm = startOfAll(shown);
  return shown.flatMap(({ setup, isTest, colour }) => {
    if (view.singles === 'none' || (view.singles === 'test' && !isTest)) return [];
    const only = isTest ? view.runs : setup.id === view.against.id ? view.againstRuns : undefined;
    return figures.runs
      .filter((run) => run.setupId === setup.id && run.counted && (only?.includes(run.label) ?? true))
      .map((run) => ({ run, colour, place: placing(view.axis, run.curve, zeroRpm) }));
  });
}

/** A run's unsmoothed points, behind the lines. */
function rawLine(
  id: number,
  raw: RawPoints,
  scale: (value: number) => number,
  colour: string,
  place: Placing,
): LaneLine {
  return {
    id: `raw-${id}`,
    x: place.xs(raw.engineSpeedRpm),
    values: raw.powerKw.map(scale),
    colour,
    width: 0,
    opacity: 0.35,
    points: true,
  };
}

/** Where checks found something on the compared runs, on the run's own line. */
function marksOf({ figures, view, shown }: Omit<LaneDrawn, 'range'>, scale: (value: number) => number) {
  const zeroRpm = startOfAll(shown);
  return figures.runs
    .filter((run) => run.counted && [view.test.id, view.against.id].includes(run.setupId))
    .filter((run) => shown.some(({ setup }) => setup.id === run.setupId))
    .flatMap(({ curve, label }) =>
      curve.checks.flatMap(({ fromRpm, toRpm, severity, message }) => {
        if (fromRpm === undefined || toRpm === undefined) return [];
        const { engineSpeedRpm, powerKw } = curve;
        const rpm = Math.min(Math.max((fromRpm + toRpm) / 2, engineSpeedRpm[0]!), engineSpeedRpm.at(-1)!);
        return [
          {
            x: placing(view.axis, curve, zeroRpm).x(rpm),
            value: scale(interpolate(engineSpeedRpm, powerKw, rpm)),
            severity,
            why: `${label}: ${message}`,
          },
        ];
      }),
    );
}

function meansAt(
  { shown, at, range }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
  write: (value: number) => string,
): GutterValue[] {
  if (at === undefined) return namesAtEnds(shown, range, quantity, scale);
  return shown.flatMap(({ name, figures: one, colour, place }) => {
    const { engineSpeedRpm, values } = one[quantity];
    const atRpm = place.rpm(at);
    if (atRpm < engineSpeedRpm[0]! || atRpm > engineSpeedRpm[engineSpeedRpm.length - 1]!) return [];
    const value = interpolate(engineSpeedRpm, values, atRpm);
    return [
      { id: name, label: name.length > 2 ? name : `${name} mean`, text: write(value), value: scale(value), colour },
    ];
  });
}

/** While there is no crosshair the lines' names stand beside their ends, without a figure that could be taken for one. */
function namesAtEnds(
  shown: readonly Shown[],
  range: readonly [number, number],
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
): GutterValue[] {
  return shown.map(({ name, figures: one, colour, place }) => {
    const { engineSpeedRpm, values } = one[quantity];
    return {
      id: name,
      label: name,
      text: '',
      value: scale(interpolate(engineSpeedRpm, values, place.rpm(range[1]))),
      colour,
    };
  });
}

/** Power of the setups shown: means heavy, the test's runs thin, the baseline's repeatability grey. */
export function PowerLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  // Lines outlive a zoom: with sixty of them that is what takes time.
  const lines = useMemo(() => linesOf({ view, figures, shown }, 'power', (kw) => convert(kw, 'kW', view.powerUnit)), [view, figures, shown]); // prettier-ignore
  const props = useMemo(() => powerLane({ view, figures, shown, range }, lines), [view, figures, shown, range, lines]);
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const marks = useMemo(() => marksOf({ view, figures, shown }, (kw) => convert(kw, 'kW', view.powerUnit)), [view, figures, shown]); // prettier-ignore
  return (
    <div className={classes.row}>
      <Lane {...props} />
      <LaneMarks marks={marks} range={range} values={props.values} />
      <Gutter range={props.values} values={meansAt(lane, 'power', scale, (kw) => formatPower(kw, view.powerUnit))} />
    </div>
  );
}

function powerLane(drawn: LaneDrawn, lines: LaneLine[]): LaneProps {
  const { view, figures, shown, range } = drawn;
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const [least, most] = extent(
    lines.filter((line) => !line.points),
    range,
  );
  const values = niceRange(least, most + (most - least) * 0.09, 5);
  const top = shown.at(-1)!;
  const peak = peakOf(top.figures.power.engineSpeedRpm, top.figures.power.values);
  const peakText = formatPower(peak.value, view.powerUnit);
  const compared = figures.comparison?.power;
  const envelopePlace = (shown.find(({ setup }) => setup.id === view.against.id) ?? top).place;
  const bound = (sign: 1 | -1) =>
    compared!.baseline.map((kw, index) => scale(kw + sign * compared!.repeatability[index]!));
  return {
    name: 'Power',
    unit: `${view.powerUnit}${scaleNote(figures)}${axisNote(values.least)}`,
    lines,
    range,
    values,
    decoration: {
      band: bandOf(drawn),
      marks: marksOf(drawn, scale),
      markColours: { mind: 'var(--ink)', stop: 'var(--stop)', ground: 'var(--ground)' },
      peak: {
        x: top.place.x(peak.rpm),
        value: scale(peak.value),
        text: `${peakText} at ${formatRpm(peak.rpm)}`,
        colour: top.colour,
      },
      envelope:
        compared && !Number.isNaN(compared.repeatability[0]!)
          ? { x: envelopePlace.xs(compared.engineSpeedRpm), low: bound(-1), high: bound(1), colour: 'var(--ink)' }
          : undefined,
    },
    text: `Power of ${shown.map(({ name }) => name).join(', ')} over ${axisWords[view.axis].name}; ${top.name} peaks at ${peakText} ${view.powerUnit} at ${formatRpm(peak.rpm)} rpm.`,
  };
}

function axisNote(least: number): string {
  return least === 0 ? '' : `; axis from ${least}`;
}

/** Engine-referred torque of the setups shown. */
export function TorqueLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  const lines = useMemo(() => linesOf({ view, figures, shown }, 'torque', (newtonMetres) => convert(newtonMetres, 'N·m', view.torqueUnit)), [view, figures, shown]); // prettier-ignore
  const props = useMemo(() => torqueLane({ view, figures, shown, range }, lines), [view, figures, shown, range, lines]);
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

function torqueLane(drawn: LaneDrawn, lines: LaneLine[]): LaneProps {
  const { view, shown, range, figures } = drawn;
  const values = niceRange(...extent(lines, range), 4);
  const top = shown.at(-1)!;
  const peak = peakOf(top.figures.torque.engineSpeedRpm, top.figures.torque.values);
  return {
    name: 'Torque',
    unit: `${view.torqueUnit}, engine-referred${scaleNote(figures)}${axisNote(values.least)}`,
    lines,
    range,
    values,
    decoration: { band: bandOf(drawn) },
    text: `Torque of ${shown.map(({ name }) => name).join(', ')} over ${axisWords[view.axis].name}; ${top.name} has most, ${formatTorque(peak.value, view.torqueUnit)} ${view.torqueUnit}, at ${formatRpm(peak.rpm)} rpm.`,
  };
}
