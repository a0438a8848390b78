import type { OwnUnits } from '../../units/own-units.ts';
import dayjs from 'dayjs';
import type { StatedAir } from '../../../contract/job/circumstances.ts';
import type { RunChange } from '../../../contract/job/job-requests.ts';
import type { Run } from '../../../contract/job/records.ts';
import { statedOf } from '../../../core/air/stated-air.ts';

/** Temperatures that are usually read at a start. */
export const startChannels = ['coolantTemperature', 'oilTemperature', 'intakeTemperature'] as const;

/** What stands in the fields of the form: text where a number may still be missing. */
export interface CircumstancesDraft {
  startedAt: string;
  gear: string;
  temperatureC: string;
  pressureHpa: string;
  pressureAt: 'station' | 'sea level';
  elevationM: string;
  moisture: string;
  moistureBy: StatedAir['moisture']['by'];
  ventilated: boolean;
  starts: Record<string, string>;
  fuelName: string;
  ethanolPct: string;
  tyres: string;
  tyrePressureKpa: string;
  fan: string;
  bonnet: string;
  loadMode: string;
  remounted: '' | 'yes' | 'no';
  dyno: Run['dyno'];
  ratio: string;
}

const written = (value: number | null | undefined, digits = 1) =>
  value === null || value === undefined ? '' : String(Math.round(value * 10 ** digits) / 10 ** digits);
/**
 * The same in the person's unit, with one digit more where that is another unit, so that nothing is lost on the way
 * back.
 */
const writtenIn = (value: number | null | undefined, unit: string, { told }: Asked, digits = 1) =>
  written(
    value === null || value === undefined ? value : told(unit).of(value),
    digits + (told(unit).unit === unit ? 0 : 1),
  );
const dateForm = 'YYYY-MM-DDTHH:mm:ss';

/** Whose units the form is filled in. */
type Asked = Pick<OwnUnits, 'told'>;

/** The form as the run stands now. */
export function draftOf(run: Run, elevationM: number | undefined, own: Asked): CircumstancesDraft {
  const air = run.airStated ?? (run.air ? statedOf(run.air) : null);
  const { pressure, moisture } = air ?? {};
  return {
    startedAt: dayjs(run.startedAt).format(dateForm),
    gear: run.gear ?? '',
    temperatureC: writtenIn(air?.temperatureC, '°C', own),
    pressureHpa: writtenIn(pressure?.hPa, 'hPa', own),
    pressureAt: pressure?.at ?? 'station',
    elevationM: written(pressure?.at === 'sea level' ? pressure.elevationM : elevationM, 0),
    moisture: moisture?.by === 'humidity' ? written(moisture.pct) : writtenIn(moisture?.celsius, '°C', own),
    moistureBy: moisture?.by ?? 'humidity',
    ventilated: moisture?.by === 'wet bulb' ? moisture.ventilated : true,
    starts: Object.fromEntries(
      [...new Set([...startChannels, ...Object.keys(run.startTemperatures)])].map((name) => [
        name,
        writtenIn(run.startTemperatures[name], '°C', own),
      ]),
    ),
    fuelName: run.fuel?.name ?? '',
    ethanolPct: written(run.fuel?.ethanolPct),
    tyres: run.tyres ?? '',
    tyrePressureKpa: writtenIn(run.tyrePressureKpa, 'kPa', own, 0),
    fan: run.fan ?? '',
    bonnet: run.bonnet ?? '',
    loadMode: run.loadMode ?? '',
    remounted: run.remounted === null ? '' : run.remounted ? 'yes' : 'no',
    dyno: run.dyno,
    ratio: written(run.engineToDrumRatio, 4),
  };
}

/** What somebody filled in in their unit, as it is kept; undefined where there is nothing. */
function keptIn(text: string, unit: string, { told }: Asked): number | undefined {
  const value = numberIn(text);
  return value === undefined ? undefined : Number(told(unit).kept(value).toPrecision(9));
}

/** A number as people write it; undefined where there is none. */
const numberIn = (text: string) => (text.trim() === '' ? undefined : Number(text.trim().replace(',', '.')));
const orNull = (text: string) => text.trim() || null;

/** What the form says that the run does not say yet: only that is sent. */
export function changeIn(
  draft: CircumstancesDraft,
  run: Run,
  elevationM: number | undefined,
  own: Asked,
): RunChange | string {
  const before = draftOf(run, elevationM, own);
  const changed = (...fields: (keyof CircumstancesDraft)[]) =>
    fields.some((field) => JSON.stringify(draft[field]) !== JSON.stringify(before[field]));
  const change: RunChange = {};
  if (changed('startedAt')) {
    const at = dayjs(draft.startedAt);
    if (!at.isValid()) return 'Say the date and the time of the run.';
    change.startedAt = at.toISOString();
  }
  if (changed('gear')) change.gear = orNull(draft.gear);
  const air = airIn(draft, own);
  if (typeof air === 'string') return air;
  if (JSON.stringify(air) !== JSON.stringify(airIn(before, own))) change.air = air;
  if (changed('starts')) {
    const starts = Object.entries(draft.starts).flatMap(([name, text]) => {
      const value = keptIn(text, '°C', own);
      return value === undefined ? [] : [[name, value] as const];
    });
    if (starts.some(([, value]) => Number.isNaN(value))) return 'A start temperature is no number.';
    change.startTemperatures = Object.fromEntries(starts);
  }
  if (changed('fuelName', 'ethanolPct')) {
    const ethanolPct = numberIn(draft.ethanolPct) ?? null;
    change.fuel = draft.fuelName.trim() || ethanolPct !== null ? { name: draft.fuelName.trim(), ethanolPct } : null;
  }
  if (changed('tyres')) change.tyres = orNull(draft.tyres);
  if (changed('tyrePressureKpa')) change.tyrePressureKpa = keptIn(draft.tyrePressureKpa, 'kPa', own) ?? null;
  if (changed('fan')) change.fan = orNull(draft.fan);
  if (changed('bonnet')) change.bonnet = orNull(draft.bonnet);
  if (changed('loadMode')) change.loadMode = (draft.loadMode || null) as RunChange['loadMode'];
  if (changed('remounted')) change.remounted = draft.remounted === '' ? null : draft.remounted === 'yes';
  if (changed('dyno')) change.dyno = draft.dyno;
  if (changed('ratio')) change.engineToDrumRatio = numberIn(draft.ratio) ?? null;
  return change;
}

/** The air as it was filled in; null where nothing is; a sentence where something is missing. */
function airIn(draft: CircumstancesDraft, own: Asked): StatedAir | null | string {
  const temperatureC = keptIn(draft.temperatureC, '°C', own);
  const hPa = keptIn(draft.pressureHpa, 'hPa', own);
  const moisture = keptIn(draft.moisture, draft.moistureBy === 'humidity' ? '%' : '°C', own);
  const elevationM = numberIn(draft.elevationM);
  if (temperatureC === undefined && hPa === undefined && moisture === undefined) return null;
  if (temperatureC === undefined || hPa === undefined || moisture === undefined)
    return 'Air takes a temperature, a pressure and a moisture; leave all three empty where nobody knows it.';
  if ([temperatureC, hPa, moisture].some(Number.isNaN)) return 'A figure of the air is no number.';
  if (draft.pressureAt === 'sea level' && elevationM === undefined)
    return 'A sea-level pressure takes the height of the place as well.';
  return {
    temperatureC,
    pressure:
      draft.pressureAt === 'station' ? { at: 'station', hPa } : { at: 'sea level', hPa, elevationM: elevationM ?? 0 },
    moisture:
      draft.moistureBy === 'humidity'
        ? { by: 'humidity', pct: moisture }
        : draft.moistureBy === 'dew point'
          ? { by: 'dew point', celsius: moisture }
          : { by: 'wet bulb', celsius: moisture, ventilated: draft.ventilated },
  };
}
