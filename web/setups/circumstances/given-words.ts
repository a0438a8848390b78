import { airTemperature, type OwnUnits } from '../../units/own-units.ts';
import dayjs from 'dayjs';
import type { Run } from '../../../contract/job/records.ts';
import { channelLabel } from '../../../core/recording/channels.ts';
import { dynoText } from '../../job/known-dynos.ts';

/** What an instrument or a file gave of a run before a person put it right, in words. */
export function givenWords(given: Run['given'], own: OwnUnits): string {
  const of = given as Partial<
    Pick<Run, 'startedAt' | 'gear' | 'air' | 'dyno' | 'fuel' | 'startTemperatures' | 'engineToDrumRatio'>
  >;
  const starts = Object.entries(of.startTemperatures ?? {}).map(
    ([name, value]) => `${channelLabel(name)} ${own.whole(value, '°C')}`,
  );
  const said = [
    of.startedAt && dayjs(of.startedAt).format('D MMMM YYYY, HH:mm'),
    'gear' in of && (of.gear ? `${of.gear} gear` : 'no gear'),
    'air' in of &&
      (of.air
        ? `${airTemperature(of.air.temperatureC, own)}, ${own.whole(of.air.pressureHpa, 'hPa')}, ${Math.round(of.air.relativeHumidityPct)} %`
        : 'no air'),
    'fuel' in of && (of.fuel ? of.fuel.name || `${of.fuel.ethanolPct} % ethanol` : 'no fuel'),
    'startTemperatures' in of && (starts.join(', ') || 'no start temperatures'),
    of.dyno && dynoText(of.dyno),
    of.engineToDrumRatio && `ratio ${of.engineToDrumRatio}`,
  ];
  return said.filter(Boolean).join('; ');
}
