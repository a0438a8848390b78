import { useMemo } from 'react';
import { interpolate } from '../../../core/recording/search.ts';
import { Gutter } from '../../charts/gutter.tsx';
import { Lane, type LaneLine } from '../../charts/lane.tsx';
import type { LogView } from '../../workers/figures.worker.ts';
import { rangeOf } from '../logs/event-cards.tsx';
import classes from './compare-lanes.module.css';
import { laneName } from './lane-menu.tsx';
import { bandOf, type LaneCommon } from './shown-setups.ts';

/** One run's log as a lane draws it. */
export interface LoggedSide {
  label: string;
  colour: string;
  log: LogView | undefined;
}

/** A logged channel over engine speed: the latest run of the compared setup over that of the other. */
export function ChannelLane({
  channel,
  sides,
  range,
  view,
  atRpm,
}: Pick<LaneCommon, 'range' | 'view' | 'atRpm'> & { channel: string; sides: readonly LoggedSide[] }) {
  const drawn = useMemo(
    () =>
      sides.flatMap(({ label, colour, log }) => {
        const found = log?.channels.find(({ name }) => name === channel);
        return found && found.speed.x.length > 1 ? [{ label, colour, unit: found.unit, speed: found.speed }] : [];
      }),
    [sides, channel],
  );
  const lines = useMemo(
    () =>
      drawn.map(({ label, colour, speed }, index): LaneLine => ({
        id: label,
        rpm: speed.x,
        values: speed.values,
        colour,
        width: index === drawn.length - 1 ? 2.2 : 1.6,
      })),
    [drawn],
  );
  const unit = drawn[0]?.unit ?? '';
  const values = rangeOf(
    drawn.map(({ speed }) => speed.values),
    unit,
  );
  if (drawn.length === 0)
    return (
      <p className={classes.noGain}>
        {laneName(channel)} was not logged in these runs, or its logger could not be lined up.
      </p>
    );
  const readings = drawn.flatMap(({ label, colour, speed }) => {
    if (atRpm === undefined || atRpm < speed.x[0]! || atRpm > speed.x.at(-1)!) return [];
    const value = interpolate(speed.x, speed.values, atRpm);
    return [{ id: label, label, text: written(value), value, colour }];
  });
  return (
    <div className={classes.row}>
      <Lane
        name={laneName(channel)}
        unit={`${unit === '–' ? '' : `${unit}, `}${drawn.map(({ label }) => label).join(' under ')}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{ band: bandOf(view) }}
        text={`${laneName(channel)} of ${drawn.map(({ label }) => label).join(' and ')} over engine speed${unit === '–' ? '' : `, in ${unit}`}.`}
      />
      <Gutter range={values} values={readings} />
    </div>
  );
}

function written(value: number): string {
  const digits = Math.abs(value) < 3 ? 2 : Math.abs(value) < 100 ? 1 : 0;
  return value.toFixed(digits).replace('-', '−');
}
