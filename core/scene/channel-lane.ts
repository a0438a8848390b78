import type { Stoichiometric } from '../fuel/blend.ts';
import type { LogMean } from '../log/view/mean-log.ts';
import { asAirFuelRatio, keptUnit } from '../recording/channels.ts';
import { figureIn, toldIn } from '../units/told-units.ts';
import { readingRange } from './nice-range.ts';
import { axisWords, type Placing } from './lane-axis.ts';
import { laneName } from './lane-list.ts';
import type { SceneView } from './scene-view.ts';
import type { EmptyLane, LaneContent } from './scene.ts';

/** One run's log as a lane draws it. */
export interface LoggedSide {
  label: string;
  colour: string;
  /** Where its engine speeds stand on the lanes' axis. */
  place: Placing;
  /** Of the fuel that it was made on. */
  stoichiometric: Stoichiometric;
  log: LogMean | undefined;
}

/** A logged channel: the latest run of the compared setup over that of the other. */
export function channelLane(channel: string, sides: readonly LoggedSide[], view: SceneView): LaneContent | EmptyLane {
  const drawn = sides.flatMap(({ log, ...side }) => {
    const found = log?.channels.find(({ name }) => name === channel);
    if (!found || found.speed.x.length < 2) return [];
    const told = toldIn(keptUnit(channel, found.unit), view.units, side.stoichiometric.ratio);
    return [{ ...side, unit: told.unit, rpm: found.speed.x, values: found.speed.values.map(told.of) }];
  });
  const [first] = drawn;
  if (!first)
    return {
      id: channel,
      why: `${laneName(channel)} was not logged in these runs, or its logger could not be lined up.`,
    };
  const asRatio = first.unit === 'AFR';
  const unit = asRatio ? ratioUnit(drawn) : first.unit;
  const range = readingRange(
    drawn.map(({ values }) => values),
    first.unit,
  );
  return {
    id: channel,
    lines: drawn.map(({ label, colour, rpm, values, place }, index) => ({
      id: label,
      x: place.xs(rpm),
      values,
      colour,
      width: index === drawn.length - 1 ? 2.2 : 1.6,
    })),
    readings: drawn.map(({ label, colour, rpm, values, place }) => ({
      id: label,
      label,
      endName: undefined,
      colour,
      place,
      rpm,
      values,
      write: (value) => figureIn(value, first.unit),
    })),
    marks: [],
    decoration: {},
    valuesWithin: () => range,
    name: asRatio ? asAirFuelRatio(laneName(channel)) : laneName(channel),
    readingUnit: unit,
    unit: () => `${unit && `${unit}, `}${drawn.map(({ label }) => label).join(', ')}`,
    text: `${laneName(channel)} of ${drawn.map(({ label }) => label).join(' and ')} over ${axisWords[view.axis].name}${unit && `, in ${unit}`}.`,
  };
}

/** By mass, with the stoichiometric ratio that λ was multiplied by. */
function ratioUnit(drawn: readonly Pick<LoggedSide, 'stoichiometric'>[]): string {
  const each = [...new Set(drawn.map(({ stoichiometric: { ratio, fuel } }) => `${ratio.toFixed(1)} (${fuel})`))];
  return `by mass, λ × ${each.join(' and ')}`;
}
