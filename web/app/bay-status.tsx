import { airTemperature, type OwnUnits } from '../units/own-units.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import { Link } from 'react-router';
import type { BayState } from '../../contract/bays/live.ts';
import { bayWord } from '../live/bay-words.ts';
import { deviceKindWords } from '../live/device-kind-words.ts';
import { useLive } from '../state/live.ts';
import { formatWhole } from '../../core/wording/figures.ts';
import { useNow } from '../ui/use-now.ts';
import classes from './bay-status.module.css';

/** In the corner of every screen: the only bay's instruments, air and its age; or all bays, each the way to its Record. */
export function BayStatus() {
  const bays = useLive((state) => state.bays);
  const [only, ...others] = bays;
  if (!only) return <div className={classes.status} />;
  return others.length === 0 ? <OnlyBay bay={only} /> : <BayStrip bays={bays} />;
}

function OnlyBay({ bay }: { bay: BayState }) {
  const now = useNow();
  const { devices, name } = bay;
  const heard = devices.filter((device) => device.heard);
  const dyno = heard.find((device) => device.dyno !== null);
  const own = useOwnUnits();
  return (
    <div className={classes.status} role="status" aria-label="Bay">
      <div title={bayWord(bay).more ?? undefined}>
        <span className={dyno ? classes.heard : classes.unheard} aria-hidden />
        {dyno ? `${name}, ${deviceKindWords[dyno.kind]}` : `${name}, no dyno connected`}
        <span className={classes.count}> · {heard.length === 1 ? '1 instrument' : `${heard.length} instruments`}</span>
      </div>
      <div className="number">{airText(bay, now, own)}</div>
    </div>
  );
}

/** Every bay with a word; the one that this page watches with its air. */
function BayStrip({ bays }: { bays: readonly BayState[] }) {
  const watched = useLive((state) => state.watched);
  const own = useOwnUnits();
  const now = useNow();
  const many = bays.length > 3;
  return (
    <nav className={classes.strip} aria-label="Bays" data-many={many || undefined}>
      <Air bay={bays.find(({ bay }) => bay === watched)} now={now} />
      {bays.map((bay) => {
        const { word, mark, more } = bayWord(bay);
        const air = airText(bay, now, own);
        return (
          <Link
            key={bay.bay}
            to={`/bays/${bay.bay}/record`}
            className={classes.bay}
            aria-label={`${bay.name}: ${word}`}
            data-watched={bay.bay === watched || undefined}
            title={[`${bay.name}: ${word}`, more, air].filter(Boolean).join('\n')}
          >
            <b>
              <span
                className={mark === 'bad' ? classes.unheard : mark === 'busy' ? classes.busy : classes.heard}
                aria-hidden
              />
              {many ? shortName(bay.name) : bay.name}
              {more && mark !== 'bad' && <span className={classes.minds}> ▲</span>}
            </b>
            {/* Of many only what is being recorded is told; shape and title say the rest. */}
            {(!many || mark === 'busy') && <small>{word}</small>}
          </Link>
        );
      })}
    </nav>
  );
}

/** `Bay 7` is told by its number; another name by its beginning. */
const shortName = (name: string) => /^bay (\d+)$/i.exec(name)?.[1] ?? name.slice(0, 5);

/** In two short lines, where there is room. */
function Air({ bay, now }: { bay: BayState | undefined; now: number }) {
  const own = useOwnUnits();
  if (!bay) return null;
  const [temperature, pressure, ...rest] = airText(bay, now, own).split(' · ');
  return (
    <div className={`${classes.air} number`}>
      <div>{[temperature, pressure].filter(Boolean).join(' · ')}</div>
      <div>{rest.join(' · ')}</div>
    </div>
  );
}

function airText(bay: BayState, now: number, own: OwnUnits): string {
  if (!bay.air) return 'no air reading yet';
  const { temperatureC, pressureHpa, relativeHumidityPct, takenAt } = bay.air;
  const age = Math.max(0, Math.round((now - new Date(takenAt).getTime()) / 1000));
  const old = age < 120 ? `${age} s old` : `${Math.round(age / 60)} min old`;
  return `${airTemperature(temperatureC, own)} · ${own.whole(pressureHpa, 'hPa')} · ${formatWhole(relativeHumidityPct)} % · ${old}`;
}
