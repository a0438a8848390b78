import { channelLabel } from '../../core/recording/channels.ts';
import type { LogEvent } from '../../core/log/run-log.ts';
import { Lane } from '../charts/lane.tsx';
import { SeverityMark } from '../ui/severity.tsx';
import type { LogView } from '../../core/log/log-view.ts';
import classes from './event-cards.module.css';
import { readingRange } from '../charts/nice-range.ts';

/** How much of the pull is shown to each side of an event, rpm. */
const aroundRpm = 700;
const mostChannels = 3;

/** Each thing that happened, in a sentence, with the few channels that explain it. */
export function EventCards({ log, colour }: { log: LogView; colour: string }) {
  if (log.events.length === 0) {
    return (
      <p className={classes.clean} data-testid="log-events">
        Nothing stands out in what was logged. {missing(log)}
      </p>
    );
  }
  return (
    <ul className={classes.cards} data-testid="log-events">
      {log.events.map((event) => (
        <Card key={`${event.id}-${event.fromS}`} event={event} log={log} colour={colour} />
      ))}
    </ul>
  );
}

const missing = ({ notLogged }: LogView) =>
  notLogged.length > 0 ? `Not logged, so not judged: ${notLogged.join(', ')}.` : '';

function Card({ event, log, colour }: { event: LogEvent; log: LogView; colour: string }) {
  const shown = event.channels
    .flatMap((name) => log.channels.find((channel) => channel.name === name) ?? [])
    .slice(0, mostChannels);
  const all = shown[0]?.speed.x;
  const range = [
    Math.max(all?.[0] ?? 0, event.fromRpm - aroundRpm),
    Math.min(all?.at(-1) ?? 1, event.toRpm + aroundRpm),
  ] as const;
  return (
    <li className={classes.card}>
      <p className={classes.sentence}>
        <SeverityMark severity={event.severity} />
        <span>{event.message}</span>
      </p>
      {shown.map(({ name, unit, speed }) => (
        <div key={name} className={classes.small}>
          <Lane
            name={channelLabel(name)}
            unit={unit === '–' ? '' : unit}
            lines={[{ id: name, x: speed.x, values: speed.values, colour, width: 2 }]}
            range={range}
            values={readingRange([speed.values], unit)}
            decoration={{ band: { from: event.fromRpm, to: event.toRpm } }}
            text={`${channelLabel(name)} around ${event.fromRpm} rpm`}
          />
        </div>
      ))}
      <p className={classes.where}>
        {Math.round(range[0]).toLocaleString('en-GB')} to {Math.round(range[1]).toLocaleString('en-GB')} rpm; shaded:
        where it happened
      </p>
    </li>
  );
}
