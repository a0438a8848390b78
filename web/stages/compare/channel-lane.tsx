import { useMemo } from 'react';
import type { Stoichiometric } from '../../../core/fuel/blend.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { Gutter } from '../../charts/gutter.tsx';
import { Lane, type LaneLine } from '../../charts/lane.tsx';
import type { LogView } from '../../workers/figures.worker.ts';
import { rangeOf } from '../logs/event-cards.tsx';
import classes from './compare-lanes.module.css';
import { axisWords, type Placing } from './lane-axis.ts';
import { laneName } from './lane-menu.tsx';
import { bandOf, type LaneCommon } from './shown-setups.ts';

/** One run's log as a lane draws it. */
export interface LoggedSide {
  label: string;
  colour: string;
  /** Where its engine speeds stand on the lanes' axis. */
  place: Placing;
  /** Of the fuel that it was made on. */
  stoichiometric: Stoichiometric;
  log: LogView | undefined;
}

/** Readings of λ may be told as air–fuel ratios. */
const isLambda = (channel: string) => channel.startsWith('lambda');

type ChannelLaneProps = Pick<LaneCommon, 'range' | 'view' | 'at' | 'shown'> & {
  channel: string;
  sides: readonly LoggedSide[];
};

/** A logged channel: the latest run of the compared setup over that of the other. */
export function ChannelLane({ channel, sides, range, view, at, shown }: ChannelLaneProps) {
  const asRatio = view.afr && isLambda(channel);
  const drawn = useMemo(
    () =>
      sides.flatMap(({ log, ...side }) => {
        const found = log?.channels.find(({ name }) => name === channel);
        if (!found || found.speed.x.length < 2) return [];
        const { x, values } = found.speed;
        const scale = asRatio ? side.stoichiometric.ratio : 1;
        return [{ ...side, unit: found.unit, rpm: x, values: values.map((value) => value * scale) }];
      }),
    [sides, channel, asRatio],
  );
  const lines = useMemo(
    () =>
      drawn.map(({ label, colour, rpm, values, place }, index): LaneLine => ({
        id: label,
        x: place.xs(rpm),
        values,
        colour,
        width: index === drawn.length - 1 ? 2.2 : 1.6,
      })),
    [drawn],
  );
  if (drawn.length === 0)
    return (
      <p className={classes.noGain}>
        {laneName(channel)} was not logged in these runs, or its logger could not be lined up.
      </p>
    );
  const unit = asRatio ? ratioUnit(drawn) : drawn[0]!.unit === '–' ? '' : drawn[0]!.unit;
  const values = rangeOf(
    drawn.map((one) => one.values),
    drawn[0]!.unit,
  );
  const readings = drawn.flatMap(({ label, colour, rpm, values: own, place }) => {
    if (at === undefined) return [];
    const atRpm = place.rpm(at);
    if (atRpm < rpm[0]! || atRpm > rpm.at(-1)!) return [];
    const value = interpolate(rpm, own, atRpm);
    return [{ id: label, label, text: written(value), value, colour }];
  });
  return (
    <div className={classes.row}>
      <Lane
        name={asRatio ? laneName(channel).replace('λ', 'Air–fuel ratio') : laneName(channel)}
        unit={`${unit && `${unit}, `}${drawn.map(({ label }) => label).join(' under ')}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{ band: bandOf({ view, shown }) }}
        text={`${laneName(channel)} of ${drawn.map(({ label }) => label).join(' and ')} over ${axisWords[view.axis].name}${unit && `, in ${unit}`}.`}
      />
      <Gutter range={values} values={readings} />
    </div>
  );
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
