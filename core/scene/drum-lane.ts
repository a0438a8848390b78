import type { DrumGrouping } from '../dyno/drums.ts';
import { drumMeans, tellsApart } from '../figures/runs/drum-means.ts';
import { convert } from '../units/units.ts';
import { niceRange } from './nice-range.ts';
import { formatTenths, scaleNote } from '../wording/figures.ts';
import { axisWords } from './lane-axis.ts';
import { laneName } from './lane-list.ts';
import { singleRuns, type LaneSource } from './mean-lanes.ts';
import { extentOf, type EmptyLane, type LaneContent } from './scene.ts';

/** One drum is told from the other by its dashes: colour says which setup it is. */
const dashes: readonly number[][] = [[], [8, 4], [2, 3], [10, 3, 2, 3]];

/** Power of each wheel, axle or side by itself: means of the compared setup, and of the other one where there are few. */
export function drumLane(id: string, grouping: DrumGrouping, source: LaneSource): LaneContent | EmptyLane {
  const { shown, view, figures } = source;
  const scale = (kw: number) => convert(kw, 'kW', view.units.power);
  const everyRun = singleRuns({ ...source, view: { ...view, singles: 'all' } });
  let of = '';
  const drawn = shown.flatMap(({ setup, name, colour, isTest, place }) => {
    const all = everyRun.filter(({ run }) => run.setupId === setup.id).map(({ run }) => run);
    const told = all.filter((run) => tellsApart(run, grouping));
    const means = drumMeans(told, grouping);
    if (isTest) of = told.length < all.length ? ` of ${told.map(({ label }) => label).join(', ')}` : '';
    // Eight lines are a tangle: of four wheels the compared setup's alone are drawn.
    if (!isTest && means.length > 2) return [];
    return means.map((mean, index) => ({
      id: `${name} ${mean.name}`,
      colour,
      width: isTest ? 2.2 : 1.4,
      dash: dashes[index] ?? [],
      place,
      rpm: mean.engineSpeedRpm,
      values: mean.values.map(scale),
    }));
  });
  if (drawn.length === 0)
    return { id, why: `${laneName(id)} is not known: the compared runs were not made on drums that are recorded so.` };
  const lines = drawn.map(({ id: line, place, rpm, values, colour, width, dash }) => ({
    id: line,
    x: place.xs(rpm),
    values,
    colour,
    width,
    dash,
  }));
  return {
    id,
    lines,
    readings: drawn.map(({ id: label, colour, place, rpm, values }) => ({
      id: label,
      label,
      endName: label,
      colour,
      place,
      rpm,
      values,
      write: formatTenths,
    })),
    marks: [],
    decoration: {},
    valuesWithin: (range) => niceRange(...extentOf(lines, range), 4),
    name: laneName(id),
    readingUnit: `${view.units.power}${scaleNote(figures)}`,
    unit: () => `${view.units.power}${scaleNote(figures)}, means${of}`,
    text: `${laneName(id)} over ${axisWords[view.axis].name}: ${drawn.map(({ id: line }) => line).join(', ')}.`,
  };
}
