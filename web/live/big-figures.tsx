import type { ReactNode } from 'react';
import { Menu } from '@mantine/core';
import { knownChannels, type KnownChannel } from '../../core/recording/channels.ts';
import { convert } from '../../core/units/units.ts';
import { motionReader, useDyno, type Motion } from '../state/dyno.ts';
import { latestReading, newestRow, useLive } from '../state/live.ts';
import { usePreferences } from '../state/preferences.ts';
import { formatWhole } from '../ui/figures.ts';
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
  const { engineRpm, surfaceMetresPerSecond } = useMotion();
  return (
    <div className={classes.big}>
      <div className={classes.engine}>
        <div className={classes.label}>
          Engine <b>rpm</b>
        </div>
        <div className={classes.value} data-figure="engine">
          {whole(engineRpm)}
        </div>
      </div>
      {inThePlaceOfRoadSpeed ?? (
        <BigFigure label="Road speed" unit="km/h" value={whole(convert(surfaceMetresPerSecond, 'm/s', 'km/h'))} />
      )}
      {chosen.map((channel, index) => (
        <Chosen key={index} channel={channel} place={index} />
      ))}
    </div>
  );
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
            {known?.label ?? channel} <b>{known && known.unit !== '–' ? known.unit : ''}</b>
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
        {reading === undefined ? absent : written(reading, known?.unit)}
      </div>
    </div>
  );
}

/** λ and volts want decimals; everything else is read as a whole number from afar. */
function written(value: number, unit: string | undefined): string {
  if (unit === '–') return value.toFixed(2);
  if (unit === 'V' || unit === '°') return value.toFixed(1).replace('-', '−');
  return formatWhole(value);
}
