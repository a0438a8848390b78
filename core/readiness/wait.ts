import type { TimeToReady } from '../heat/cooling-curve.ts';
import { placeInWindow, type StartWindow } from '../heat/start-window.ts';

/** What is to be waited for before the next run: the planned rest, and temperatures to return to the baseline's starts. */
export interface Wait {
  /** Since the last run ended, s; undefined before the first. */
  restedS: number | undefined;
  /** 0 where nothing is to be waited for, s. */
  waitS: number;
  /** What it is waited for. */
  for: 'rest' | 'heat' | undefined;
  /** Of a wait for the heat, how long by the cooling so far, s. */
  rangeS: readonly [number, number] | undefined;
  /** Channels outside of the window, and those of them of which nobody can tell when they return. */
  outside: string[];
  untold: string[];
}

interface Standing {
  /** Ends of the job's runs so far, ms. */
  endsMs: readonly number[];
  nowMs: number;
  /** Rest planned between runs, min. */
  coolDownMin: number;
  window: StartWindow;
  /** Present temperatures by channel, °C; those that are not read are left out. */
  nowC: Readonly<Record<string, number>>;
  /** When each will be back in the window. */
  times: Readonly<Record<string, TimeToReady>>;
}

/** How long until the next run starts as the baseline's did. */
export function waitBefore({ endsMs, nowMs, coolDownMin, window, nowC, times }: Standing): Wait {
  const outside = Object.entries(window).flatMap(([channel, band]) => {
    const value = nowC[channel];
    return value !== undefined && placeInWindow(value, band) !== 'inside' ? [channel] : [];
  });
  const waits = outside.flatMap((channel) => {
    const time = times[channel];
    return time?.when === 'in' ? [time] : [];
  });
  const untold = outside.filter((channel) => times[channel]?.when !== 'in');
  const ended = endsMs.length > 0 ? Math.max(...endsMs) : undefined;
  const restedS = ended === undefined ? undefined : Math.max(0, (nowMs - ended) / 1000);
  const restS = restedS === undefined ? 0 : Math.max(0, coolDownMin * 60 - restedS);
  const heatS = Math.max(0, ...waits.map(({ seconds }) => seconds));
  const waitS = Math.max(restS, heatS);
  const byHeat = heatS > restS;
  const rangeS = byHeat
    ? ([Math.max(...waits.map(({ leastS }) => leastS)), Math.max(...waits.map(({ mostS }) => mostS))] as const)
    : undefined;
  return { restedS, waitS, for: waitS > 0 ? (byHeat ? 'heat' : 'rest') : undefined, rangeS, outside, untold };
}
