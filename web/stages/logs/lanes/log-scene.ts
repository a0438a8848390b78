import { extent } from 'd3-array';
import { interpolate } from '../../../../core/numerics/interpolation.ts';
import { channelLabel } from '../../../../core/recording/channels.ts';
import { limitChannel, limitQuantities, type Limit } from '../../../../core/limits/limit.ts';
import type { LaneGroup } from '../../../../core/log/view/lane-groups.ts';
import type { LoggedChannel, ShownEvent } from '../../../../core/log/view/log-view.ts';
import type { LogSeries } from '../../../../core/log/pull/series.ts';
import { unplaced, type LaneAxisId } from '../../../../core/scene/lane-axis.ts';
import type { LaneLine } from '../../../../core/scene/lane.ts';
import { closeRange } from '../../../../core/scene/nice-range.ts';
import type { AxisRange, LaneContent } from '../../../../core/scene/scene.ts';
import type { LogSide } from '../view/log-side.ts';
import { figureIn } from '../../../../core/units/told-units.ts';
import { toldLabel } from '../../../log/told-log.ts';
import type { OwnUnits } from '../../../units/own-units.ts';

/** A limit is drawn while it lies within so many times the range of what was read. */
const limitWithin = 1.5;

/** A channel over an axis; time counts from the opening. Empty where it has no place there. */
export function seriesOver(channel: LoggedChannel, axis: LaneAxisId, startS: number): LogSeries {
  if (axis === 'engine-speed') return channel.speed;
  if (axis === 'road-speed') return channel.road ?? { x: new Float64Array(), values: new Float64Array() };
  return { x: channel.time.x.map((x) => x - startS), values: channel.time.values };
}

/** The range of the axis that a side covers. */
export function wholeOf({ log }: LogSide, axis: LaneAxisId): AxisRange {
  // A channel may have begun late, or may not have been read at the end.
  const places = log.channels.flatMap((channel) => {
    const { x } = seriesOver(channel, axis, log.startS);
    return x.length > 1 ? [x[0]!, x[x.length - 1]!] : [];
  });
  const [least, most] = extent(places);
  return least === undefined || most === undefined || least === most ? [0, 1] : [least, most];
}

/** Where an event begins and ends on the axis. */
export function placeOf(event: ShownEvent, axis: LaneAxisId, startS: number): AxisRange {
  if (axis === 'time') return [event.fromS - startS, event.toS - startS];
  const [from, to] = axis === 'road-speed' ? (event.roadKmh ?? [0, 0]) : [event.fromRpm, event.toRpm];
  return from < to ? [from, to] : [to, from];
}

interface SceneSource {
  /** The run that is looked at. */
  main: LogSide;
  /** Laid beside it, the first the one that differences are taken from. */
  beside: readonly LogSide[];
  events: readonly ShownEvent[];
  limits: readonly Limit[];
  axis: LaneAxisId;
  /** The person's units, of what the run burnt. */
  own: OwnUnits;
}

/** A group of channels as a lane: what is read first drawn out of all sides, what belongs to it dashed and of the run alone. */
export function groupLane(group: LaneGroup, source: SceneSource): LaneContent {
  const { main, beside, axis, own } = source;
  const [first, ...partners] = group.channels as [string, ...string[]];
  const drawn = [
    ...beside.flatMap((side) => lineOf(side, first, { label: side.label, width: 1.2, opacity: 0.75 })),
    ...partners.flatMap((name) => lineOf(main, name, { label: shortName(name, first), width: 1.4, dash: [5, 3] })),
    ...lineOf(main, first, { label: main.label, width: 2.1 }),
  ];
  const unit = main.log.channels.find(({ name }) => name === first)?.unit ?? '';
  const values = drawn.map((line) => line.values as Float64Array);
  const bounds = source.limits
    .filter(({ quantity }) => limitChannel(quantity) === first)
    .map(({ quantity, value }) => ({
      value: own.told(limitQuantities[quantity].unit).of(value),
      words: limitWords({ quantity, value }, own),
    }));
  const range = closeRange(values, unit);
  const span = range.most - range.least;
  const shownBounds = bounds.filter(
    ({ value }) => value > range.least - limitWithin * span && value < range.most + limitWithin * span,
  );
  const whole = closeRange([...values, ...shownBounds.map(({ value }) => new Float64Array([value]))], unit);
  const marks = marksOf(first, source);
  return {
    id: group.id,
    name: toldLabel(first, own),
    unit: () =>
      [
        unit,
        ...partners
          .filter((name) => main.log.channels.some((channel) => channel.name === name))
          .map((name) => `${toldLabel(name, own)} dashed`),
        ...bounds.map(({ words }) => words),
      ]
        .filter(Boolean)
        .join(' · '),
    readingUnit: unit,
    lines: drawn,
    readings: drawn.map(({ id, label, endName, colour, x, values: read }) => ({
      id,
      label,
      endName,
      colour,
      place: unplaced,
      rpm: x as Float64Array,
      values: read as Float64Array,
      write: (value) => figureIn(value, unit),
    })),
    marks,
    decoration: {
      levels: shownBounds.map(({ value }) => ({ value, colour: 'var(--stop)' })),
      marks,
      markColours: { mind: 'var(--ink)', stop: 'var(--stop)', ground: 'var(--ground)' },
    },
    valuesWithin: () => whole,
    text: `${channelLabel(first)} of ${[main, ...beside].map(({ label }) => label).join(' and ')}${unit === '' ? '' : `, in ${unit}`}.`,
  };

  function lineOf(
    side: LogSide,
    name: string,
    look: { label: string; width: number; opacity?: number; dash?: number[] },
  ): (LaneLine & { label: string; endName: string })[] {
    const channel = side.log.channels.find((candidate) => candidate.name === name);
    const series = channel && seriesOver(channel, axis, side.log.startS);
    if (!series || series.x.length < 2) return [];
    return [
      {
        id: name === first ? side.label : `${side.label} ${name}`,
        endName: name === first ? side.label : channelLabel(name),
        x: series.x,
        values: series.values,
        colour: side.colour,
        ...look,
      },
    ];
  }
}

function limitWords({ quantity, value }: Pick<Limit, 'quantity' | 'value'>, own: OwnUnits): string {
  const { side, unit } = limitQuantities[quantity];
  return `limit ${side === 'most' ? '≤' : '≥'} ${own.figure(value, unit)}`;
}

/** What a partner is called beside the channel that it belongs to. */
function shortName(name: string, first: string): string {
  const label = channelLabel(name);
  const of = channelLabel(first);
  return label.startsWith(`${of} `) ? label.slice(of.length + 1) : label.replace(/ (pressure|temperature)$/, '');
}

/** Where something was found in the channel: on its line, in the middle of where it happened. */
function marksOf(first: string, { main, events, axis, own }: SceneSource): LaneContent['marks'] {
  const channel = main.log.channels.find(({ name }) => name === first);
  const series = channel && seriesOver(channel, axis, main.log.startS);
  if (!series || series.x.length < 2) return [];
  return events
    .filter(({ channels, severity }) => channels[0] === first && severity !== 'note')
    .map(({ severity, message, ...event }) => {
      const [from, to] = placeOf({ severity, message, ...event }, axis, main.log.startS);
      const x = (from + to) / 2;
      return { x, value: interpolate(series.x, series.values, x), severity, why: own.write(message) };
    });
}
