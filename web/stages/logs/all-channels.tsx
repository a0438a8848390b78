import { useMemo } from 'react';
import { channelLabel } from '../../../core/recording/channels.ts';
import { Lane } from '../../charts/lane.tsx';
import { SpeedAxis } from '../../charts/speed-axis.tsx';
import type { LogView } from '../../../core/log/log-view.ts';
import classes from './logs-stage.module.css';
import { PlainAxis } from '../../charts/plain-axis.tsx';
import { readingRange } from '../../charts/nice-range.ts';

interface AllChannelsProps {
  log: LogView;
  label: string;
  baseline: LogView | undefined;
  baselineLabel: string | undefined;
  by: 'speed' | 'time';
  colour: string;
}

/** Drum and engine speed make the axis; they need no lane of their own over it. */
const ofTheAxis = ['rollerSpeed', 'hubSpeed', 'surfaceSpeed'];

/** Every logged channel, one a lane, with the baseline's in ink behind it. */
export function AllChannels({ log, label, baseline, baselineLabel, by, colour }: AllChannelsProps) {
  const channels = log.channels.filter(
    ({ name }) => !ofTheAxis.includes(name) && !(by === 'speed' && name === 'engineSpeed'),
  );
  const range = useMemo((): readonly [number, number] => {
    const x = log.channels[0]?.[by].x;
    if (!x || x.length === 0) return [0, 1];
    return by === 'time' ? [0, x[x.length - 1]! - log.startS] : [x[0]!, x[x.length - 1]!];
  }, [log, by]);
  // Pulls begin at different times of their recordings; over time each counts from its own opening.
  const shifted = (view: LogView, x: Float64Array) => (by === 'time' ? x.map((at) => at - view.startS) : x);
  return (
    <section aria-label="All channels">
      <h2 className="heading">
        All channels of {label}
        {baselineLabel && `, ${baselineLabel} in grey`}
      </h2>
      <div className={classes.lanes}>
        {channels.map((channel) => {
          const other = baseline?.channels.find(({ name }) => name === channel.name);
          const places = channel[by];
          const last = places.values.at(-1);
          return (
            <div key={channel.name} className={classes.lane}>
              <Lane
                name={channelLabel(channel.name)}
                unit={channel.unit === '–' ? '' : channel.unit}
                lines={[
                  ...(baseline && other
                    ? [{ id: 'baseline', x: shifted(baseline, other[by].x), values: other[by].values, colour: 'var(--ink)', width: 1.2, opacity: 0.45 }] // prettier-ignore
                    : []),
                  { id: 'run', x: shifted(log, places.x), values: places.values, colour, width: 2 },
                ]}
                range={range}
                values={readingRange([places.values, ...(other ? [other[by].values] : [])], channel.unit)}
                text={`${channelLabel(channel.name)} of ${label}, ${last === undefined ? 'no reading' : `at the end ${Number(last.toPrecision(4))} ${channel.unit}`}`}
              />
            </div>
          );
        })}
      </div>
      {by === 'speed' ? (
        <SpeedAxis range={range} atRpm={undefined} band={undefined} />
      ) : (
        <PlainAxis range={range} unit="s" />
      )}
    </section>
  );
}
