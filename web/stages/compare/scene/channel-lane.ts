import type { Stoichiometric } from '../../../../core/fuel/blend.ts';
import type { LogMean } from '../../../../core/log/mean-log.ts';
import { readingRange } from '../../../charts/nice-range.ts';
import { axisWords, type Placing } from '../../../charts/lane-axis.ts';
import { laneName } from '../view/lane-list.ts';
import type { CompareView } from '../view/view-address.ts';
import type { EmptyLane, LaneContent } from '../../../charts/scene.ts';

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

/** Readings of λ may be told as air–fuel ratios. */
const isLambda = (channel: string) => channel.startsWith('lambda');

/** A logged channel: the latest run of the compared setup over that of the other. */
export function channelLane(channel: string, sides: readonly LoggedSide[], view: CompareView): LaneContent | EmptyLane {
  const asRatio = view.afr && isLambda(channel);
  const drawn = sides.flatMap(({ log, ...side }) => {
    const found = log?.channels.find(({ name }) => name === channel);
    if (!found || found.speed.x.length < 2) return [];
    const scale = asRatio ? side.stoichiometric.ratio : 1;
    return [
      { ...side, unit: found.unit, rpm: found.speed.x, values: found.speed.values.map((value) => value * scale) },
    ];
  });
  const [first] = drawn;
  if (!first)
    return { id: channel, why: `${laneName(channel)} was not logged in these runs, or its logger could not be lined up.` }; // prettier-ignore
  const unit = asRatio ? ratioUnit(drawn) : first.unit === '–' ? '' : first.unit;
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
      write: written,
    })),
    marks: [],
    decoration: {},
    valuesWithin: () => range,
    name: asRatio ? laneName(channel).replace('λ', 'Air–fuel ratio') : laneName(channel),
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

function written(value: number): string {
  const digits = Math.abs(value) < 3 ? 2 : Math.abs(value) < 100 ? 1 : 0;
  return value.toFixed(digits).replace('-', '−');
}
