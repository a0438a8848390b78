import { sampleAt } from '../numerics/sample-at.ts';
import { interpolate } from '../numerics/interpolation.ts';
import type { Reading } from './lane.ts';
import { isEmpty, type AxisRange, type Scene, type SceneLane } from './scene.ts';

/** A lane's readings at a place of the axis; lines that do not reach it have none. */
export function readingsAt({ readings }: Pick<SceneLane, 'readings'>, at: number): Reading[] {
  return readings.flatMap(({ id, label, colour, colourAt, place, rpm, values, write }) => {
    const atRpm = place.rpm(at);
    if (!(atRpm >= sampleAt(rpm, 0) && atRpm <= sampleAt(rpm, rpm.length - 1))) return [];
    const value = interpolate(rpm, values, atRpm);
    return [{ id, label, text: write(value), value, colour: colourAt?.(atRpm) ?? colour }];
  });
}

/** While there is no crosshair: the lines' names beside their ends, without a figure that could be taken for one. */
export function namesAtEnds({ readings }: Pick<SceneLane, 'readings'>, range: AxisRange): Reading[] {
  return readings.flatMap(({ id, endName, colour, place, rpm, values }) =>
    endName === undefined
      ? []
      : [{ id, label: endName, text: '', value: interpolate(rpm, values, place.rpm(range[1])), colour }],
  );
}

/** All readings at a place of the axis as lines for a spreadsheet: a line a setup or run, a column a lane, units in the head. */
export function readingsText(
  { lanes }: Pick<Scene, 'lanes'>,
  place: number,
  at: number,
  axis = 'engine speed [rpm]',
): string {
  const drawn = lanes.filter((lane): lane is SceneLane => !isEmpty(lane));
  const names = new Map(
    drawn.flatMap(({ readings }) => readings.map(({ id, endName, label }) => [id, endName ?? label])),
  );
  const cells = drawn.map((lane) => new Map(readingsAt(lane, at).map(({ id, text }) => [id, text])));
  const rows = [...names].map(([id, name]) => [name, String(place), ...cells.map((lane) => lane.get(id) ?? '')]);
  const head = drawn.map(({ name, readingUnit }) => (readingUnit ? `${name.toLowerCase()} [${readingUnit}]` : name));
  return [['setup', axis, ...head], ...rows].map((row) => row.join('\t')).join('\n');
}
