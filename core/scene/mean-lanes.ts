import { sampleAt } from '../numerics/sample-at.ts';
import { written } from '../sentence/sentence.ts';
import { peakBound, formatPower, formatRpm, formatTenths, scaleNote } from '../wording/figures.ts';
import { continued, type ContinuedCurve } from '../curve/continued.ts';
import { peakOf } from '../curve/peak.ts';
import type { RunFigures } from '../figures/runs/figured-run.ts';
import type { JobFigures } from '../figures/job-figures.ts';
import { interpolate } from '../numerics/interpolation.ts';
import type { RawPoints } from '../reduction/raw-points.ts';
import { convert } from '../units/units.ts';
import type { LaneLine } from './lane.ts';
import { niceRange, type ValueRange } from './nice-range.ts';
import { axisWords, placing, type Placing } from './lane-axis.ts';
import type { SceneView } from './scene-view.ts';
import { extentOf, type LaneContent, type LaneReading } from './scene.ts';
import { startOfAll, type Shown } from './shown-setups.ts';

/** What every lane is made from. */
export interface LaneSource {
  view: SceneView;
  /** The setups shown, the compared one last; at least one. */
  shown: readonly Shown[];
  figures: JobFigures;
}

function linesOf(drawn: LaneSource, quantity: 'power' | 'torque', scale: (value: number) => number): LaneLine[] {
  const { shown, view } = drawn;
  const single = singleRuns(drawn).map(({ run, colour, place }) => ({
    id: `run-${run.id}`,
    x: place.xs(run.curve.engineSpeedRpm),
    values: (quantity === 'power' ? run.curve.powerKw : run.curve.torqueNm).map(scale),
    colour,
    width: 1,
    opacity: 0.4,
  }));
  const means = shown.map(({ name, figures: setupFigures, colour, isTest, dash, place }) => ({
    id: `mean-${name}`,
    x: place.xs(setupFigures[quantity].engineSpeedRpm),
    values: setupFigures[quantity].values.map(scale),
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
export function singleRuns({
  shown,
  figures,
  view,
}: LaneSource): { run: RunFigures; colour: string; place: Placing }[] {
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
function marksOf({ figures, view, shown }: LaneSource, scale: (value: number) => number) {
  const zeroRpm = startOfAll(shown);
  return figures.runs
    .filter((run) => run.counted && [view.test.id, view.against.id].includes(run.setupId))
    .filter((run) => shown.some(({ setup }) => setup.id === run.setupId))
    .flatMap(({ curve, label }) =>
      curve.checks.flatMap(({ fromRpm, toRpm, severity, message }) => {
        if (fromRpm === undefined || toRpm === undefined) return [];
        const { engineSpeedRpm, powerKw } = curve;
        const rpm = Math.min(
          Math.max((fromRpm + toRpm) / 2, sampleAt(engineSpeedRpm, 0)),
          sampleAt(engineSpeedRpm, engineSpeedRpm.length - 1),
        );
        return [
          {
            x: placing(view.axis, curve, zeroRpm).x(rpm),
            value: scale(interpolate(engineSpeedRpm, powerKw, rpm)),
            severity,
            why: `${label}: ${written(message, view.units)}`,
          },
        ];
      }),
    );
}

/** The means of the setups shown as the gutter reads them, in the lane's unit. */
function meanReadings(
  { shown }: LaneSource,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
): LaneReading[] {
  return shown.map(({ name, figures, colour, place }) => ({
    id: name,
    label: name.length > 2 ? name : `${name} mean`,
    endName: name,
    colour,
    place,
    rpm: figures[quantity].engineSpeedRpm,
    values: figures[quantity].values.map(scale),
    write: formatTenths,
  }));
}

/** Power of the setups shown: means heavy, the test's runs thin, the baseline's repeatability grey. */
export function powerLane(source: LaneSource): LaneContent {
  const { view, figures, shown } = source;
  const scale = (kw: number) => convert(kw, 'kW', view.units.power);
  const further = furtherOf(source);
  const lines = [...linesOf(source, 'power', scale), ...(further ? [furtherLine(further, source, scale)] : [])];
  const drawnThrough = lines.filter((line) => !line.points);
  const top = shown[shown.length - 1]!;
  const peak = peakOf(top.figures.power.engineSpeedRpm, top.figures.power.values);
  const peakText = `${peakBound(peak)}${formatPower(peak.value, view.units.power)}`;
  const marks = marksOf(source, scale);
  const norm = figures.norm && scale(figures.norm.kw);
  return {
    id: 'power',
    lines,
    readings: meanReadings(source, 'power', scale),
    marks,
    decoration: {
      marks,
      markColours: { mind: 'var(--ink)', stop: 'var(--stop)', ground: 'var(--ground)' },
      peak: {
        x: top.place.x(peak.rpm),
        value: scale(peak.value),
        colour: top.colour,
      },
      envelope: repeatability(source, scale),
      ...(norm === undefined ? {} : { levels: [{ value: norm, colour: 'var(--ink)' }] }),
    },
    valuesWithin: (range) => {
      const [least, most] = extentOf(drawnThrough, range);
      return niceRange(least, Math.max(most + (most - least) * 0.09, norm ?? 0), 5);
    },
    name: 'Power',
    unit: (values) =>
      `${view.units.power}${scaleNote(figures)} · ${top.name} peaks ${peakText} at ${formatRpm(peak.rpm)}${axisNote(values)}${furtherNote(further, source)}${figures.norm ? ` · ${figures.norm.name} ${formatPower(figures.norm.kw, view.units.power)}, dashed` : ''}`,
    readingUnit: `${view.units.power}${scaleNote(figures)}`,
    text: `Power of ${shown.map(({ name }) => name).join(', ')} over ${axisWords[view.axis].name}; ${top.name} has most, ${peakText} ${view.units.power}, at ${formatRpm(peak.rpm)} rpm.`,
  };
}

/** The compared setup's course beyond its end, where the other one goes further: drawn, and in no figure. */
function furtherOf({ shown, view }: LaneSource): ContinuedCurve | undefined {
  const top = shown[shown.length - 1]!;
  const other = shown.find(({ setup }) => setup.id === view.against.id);
  if (!other || other === top || view.axis !== 'engine-speed') return undefined;
  return continued(top.figures.power, other.figures.power);
}

function furtherLine(
  { engineSpeedRpm, values }: ContinuedCurve,
  { shown }: LaneSource,
  scale: (kw: number) => number,
): LaneLine {
  return {
    id: 'continued',
    x: engineSpeedRpm,
    values: values.map(scale),
    colour: shown[shown.length - 1]!.colour,
    width: 1.4,
    dash: [2, 4],
  };
}

function furtherNote(further: ContinuedCurve | undefined, { shown, view }: LaneSource): string {
  if (!further) return '';
  const other = shown.find(({ setup }) => setup.id === view.against.id);
  return ` · dotted beyond ${formatRpm(sampleAt(further.engineSpeedRpm, 0))}: estimate by ${other?.name ?? 'the other'}’s shape, in no figure`;
}

/** Where further single runs of the baseline would lie, or a traced curve may; undefined without a spread. */
function repeatability({ figures, shown, view }: LaneSource, scale: (kw: number) => number) {
  const { borrowed, borrowedErrorKw } = figures;
  if (borrowed && borrowedErrorKw !== undefined) {
    const { engineSpeedRpm, values } = borrowed.power;
    const drawn = shown.find(({ setup }) => setup.id === view.against.id);
    const off = (sign: 1 | -1) => values.map((kw) => scale(kw + sign * borrowedErrorKw));
    return drawn && { x: drawn.place.xs(engineSpeedRpm), low: off(-1), high: off(1), colour: 'var(--ink)' };
  }
  const compared = figures.comparison?.power;
  if (!compared || Number.isNaN(compared.repeatability[0])) return undefined;
  const { place } = shown.find(({ setup }) => setup.id === view.against.id) ?? shown[shown.length - 1]!;
  const bound = (sign: 1 | -1) =>
    compared.baseline.map((kw, index) => scale(kw + sign * sampleAt(compared.repeatability, index)));
  return { x: place.xs(compared.engineSpeedRpm), low: bound(-1), high: bound(1), colour: 'var(--ink)' };
}

function axisNote({ least }: ValueRange): string {
  return least === 0 ? '' : `; axis from ${least}`;
}

/** Engine-referred torque of the setups shown. */
export function torqueLane(source: LaneSource): LaneContent {
  const { view, figures, shown } = source;
  const scale = (newtonMetres: number) => convert(newtonMetres, 'N·m', view.units.torque);
  const lines = linesOf(source, 'torque', scale);
  const top = shown[shown.length - 1]!;
  const peak = peakOf(top.figures.torque.engineSpeedRpm, top.figures.torque.values);
  return {
    id: 'torque',
    lines,
    readings: meanReadings(source, 'torque', scale),
    marks: [],
    decoration: {},
    valuesWithin: (range) => niceRange(...extentOf(lines, range), 4),
    name: 'Torque',
    readingUnit: `${view.units.torque}${scaleNote(figures)}`,
    unit: (values) => `${view.units.torque}, engine-referred${scaleNote(figures)}${axisNote(values)}`,
    text: `Torque of ${shown.map(({ name }) => name).join(', ')} over ${axisWords[view.axis].name}; ${top.name} has most, ${peakBound(peak)}${formatTenths(scale(peak.value))} ${view.units.torque}, at ${formatRpm(peak.rpm)} rpm.`,
  };
}
