import type { ReactNode } from 'react';
import { Menu } from '@mantine/core';
import { keptUnit, knownChannels, type KnownChannel } from '../../core/recording/channels.ts';
import { convert } from '../../core/units/units.ts';
import { motionReader, useDyno, type Motion } from '../state/dyno.ts';
import { latestReading, newestRow, rowsOlderThan, useLive } from '../state/live.ts';
import { silentAfterMs } from '../../contract/bays/live.ts';
import { usePreferences } from '../state/preferences.ts';
import { toldLabel } from '../log/told-log.ts';
import { useOwnUnits, useUnits } from '../units/use-own-units.tsx';
import { formatWhole } from '../../core/wording/figures.ts';
import classes from './big-figures.module.css';
import { useFrame } from './use-frame.ts';

const absent = '–';

interface BigFiguresProps {
  /** What a driver needs more. */
  inThePlaceOfRoadSpeed?: ReactNode;
}

/** Engine speed, road speed and two chosen channels, to be read at two metres. */
export function BigFigures({ inThePlaceOfRoadSpeed }: BigFiguresProps) {
  useFrame(30);
  const chosen = usePreferences((state) => state.largeChannels);
  const { speed } = useUnits();
  const { engineRpm, surfaceMetresPerSecond } = useMotion();
  const age = useAge();
  return (
    <div className={classes.big} data-age={age} title={age && ageWords[age]}>
      <div className={classes.engine}>
        <div className={classes.label}>
          Engine <b>rpm</b>
        </div>
        <div className={classes.value} data-figure="engine">
          {whole(engineRpm)}
        </div>
      </div>
      {inThePlaceOfRoadSpeed ?? (
        <BigFigure label="Road speed" unit={speed} value={whole(convert(surfaceMetresPerSecond, 'm/s', speed))} />
      )}
      {chosen.map((channel, index) => (
        <Chosen key={index} channel={channel} place={index} />
      ))}
    </div>
  );
}

const ageWords = {
  old: 'Nothing has been read for two seconds or more: these figures are old.',
  standing: 'The instrument is ready and sends nothing now.',
};

/** Whether what was read last is old; or stands, where the dyno says that it is ready and sends nothing. */
function useAge(): keyof typeof ageWords | undefined {
  const connected = useLive((state) => state.connected);
  const heard = useDyno()?.heard ?? false;
  if (newestRow() === undefined || (connected && heard && !rowsOlderThan(silentAfterMs))) return undefined;
  return connected && heard ? 'standing' : 'old';
}

/** One of them. */
export function BigFigure({ label, unit, value }: { label: string; unit: string; value: string }) {
  return (
    <div>
      <div className={classes.label}>
        {label} <b>{unit}</b>
      </div>
      <div className={classes.value}>{value}</div>
    </div>
  );
}

function whole(value: number): string {
  return Number.isNaN(value) ? absent : formatWhole(value);
}

function useMotion(): Motion {
  const dyno = useDyno();
  const columns = useLive((state) => state.columns);
  const row = newestRow();
  if (!dyno || !row) return { drumRadS: NaN, surfaceMetresPerSecond: NaN, engineRpm: NaN };
  return motionReader(columns, dyno)(row);
}

function Chosen({ channel, place }: { channel: string; place: number }) {
  const columns = useLive((state) => state.columns);
  const offered = columns.filter(
    (name) => !name.includes(':') && !['time', 'engineSpeed', 'rollerSpeed', 'hubSpeed', 'surfaceSpeed'].includes(name),
  );
  const known = channel in knownChannels ? knownChannels[channel as KnownChannel] : undefined;
  const own = useOwnUnits();
  const kept = known ? keptUnit(channel, known.unit) : '';
  const reading = columns.includes(channel) ? latestReading(channel) : undefined;
  const choose = (name: string) =>
    usePreferences.setState(({ largeChannels }) => ({
      largeChannels: largeChannels.map((before, index) => (index === place ? name : before)) as [string, string],
    }));
  return (
    <div>
      <Menu position="bottom-start" disabled={offered.length === 0}>
        <Menu.Target>
          <button className={classes.choose} title="Show another channel here">
            {known ? toldLabel(channel, own) : channel} <b>{known && !isRatio(own.unit(kept)) ? own.unit(kept) : ''}</b>
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {offered.map((name) => (
            <Menu.Item key={name} onClick={() => choose(name)}>
              {name in knownChannels ? knownChannels[name as KnownChannel].label : name}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <div className={classes.value} data-figure={channel}>
        {reading === undefined ? absent : known ? own.figure(reading, kept) : formatWhole(reading)}
      </div>
    </div>
  );
}

/** A ratio's name says it already. */
const isRatio = (unit: string) => unit === 'AFR';
