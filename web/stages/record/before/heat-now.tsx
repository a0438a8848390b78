import type { OwnUnits } from '../../../units/own-units.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { channelLabel } from '../../../../core/recording/channels.ts';
import type { TimeToReady } from '../../../../core/heat/cooling-curve.ts';
import { placeInWindow, tellsHeat } from '../../../../core/heat/start-window.ts';
import { latestReading, useLive } from '../../../state/live.ts';
import classes from './before-run.module.css';
import { minutesWords } from '../../../../core/wording/minutes-words.ts';
import type { HeatToReady } from '../../../heat/use-cooling.ts';
import { useFrame } from '../../../live/use-frame.ts';

const words = { below: 'cooler than', inside: 'as', above: 'hotter than' } as const;

/** Present temperatures against those that the baseline's runs started at, and when they will be back there. */
export function HeatNow({ heat: { window, times } }: { heat: HeatToReady }) {
  useFrame(2);
  const own = useOwnUnits();
  const columns = useLive((state) => state.columns);
  const known = Object.keys(window).length > 0;
  const channels = columns.filter(tellsHeat);
  if (channels.length === 0)
    return <p className={classes.quiet}>No temperature is logged; heat cannot be compared between runs.</p>;
  return (
    <section>
      <h2 className="heading">Heat now{known && ', against the baseline’s starts'}</h2>
      {channels.map((channel) => {
        const value = latestReading(channel);
        const band = window[channel];
        const place = value === undefined || !band ? undefined : placeInWindow(value, band);
        return (
          <div key={channel} className={classes.heat}>
            <span>{channelLabel(channel)}</span>
            <b className="number">{value === undefined ? '–' : own.whole(value, '°C')}</b>
            {band && value !== undefined && <WindowBar value={value} band={band} />}
            {place && band && (
              <small data-place={place}>
                {place === 'inside' ? 'within' : words[place]} {own.figure(band.fromC, '°C')} to{' '}
                {own.whole(band.toC, '°C')}
                {place !== 'inside' && timeWords(times[channel], own)}
              </small>
            )}
          </div>
        );
      })}
      {!known && <p className={classes.quiet}>The baseline’s runs will set the window to return to.</p>}
    </section>
  );
}

/** ` · back in ≈ 3 min`, as far as it can be told. */
function timeWords(time: TimeToReady | undefined, own: OwnUnits): string {
  switch (time?.when) {
    case 'in':
      return ` · back in ≈ ${minutesWords(time.seconds)}`;
    case 'never':
      return ` · comes to rest at ≈ ${own.whole(time.restC, '°C')}`;
    default:
      return '';
  }
}

function WindowBar({ value, band }: { value: number; band: { fromC: number; toC: number } }) {
  const reach = Math.max(12, (band.toC - band.fromC) * 1.6, Math.abs(value - (band.fromC + band.toC) / 2) * 1.15);
  const middle = (band.fromC + band.toC) / 2;
  const share = (temperature: number) => `${50 + ((temperature - middle) / reach) * 50}%`;
  return (
    <div className={classes.bar} aria-hidden>
      <i style={{ left: share(band.fromC), right: `calc(100% - ${share(band.toC)})` }} />
      <u style={{ left: share(value) }} />
    </div>
  );
}
