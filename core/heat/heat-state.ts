import { placeInWindow, type StartWindow } from './start-window.ts';

/** How an engine stood when a run began. */
export type HeatState = 'cold peak' | 'ready' | 'heat-soaked' | 'cool' | 'unknown';

/** A rest this long lets a car cool right down, min: the first run after it is a peak, not a fair comparison. */
export const fullCoolDownMin = 20;
/** A car that has cooled right down starts this far below the window, K. */
const cooledByK = 4;

/** What each state means, as it is said beside a run. */
export const heatWords: Record<HeatState, string> = {
  'cold peak':
    'Cold peak: the first run after a full cool-down reads high. It is no fair comparison with ready-state runs.',
  ready: 'Ready: it started within the baseline’s window.',
  'heat-soaked': 'Heat-soaked: it started hotter than the baseline’s runs.',
  cool: 'Cool: it started colder than the baseline’s runs.',
  unknown: 'No baseline window yet to tell its heat state by.',
};

/**
 * A run's heat state by where its temperatures stood against the baseline's
 * window, and by the rest before it: colder than the window after a full
 * cool-down is a cold peak.
 *
 * @param starts °C by channel
 * @param restedMin since the run before; undefined where it is the first of its session
 */
export function heatState(
  starts: Readonly<Record<string, number>>,
  window: StartWindow,
  restedMin: number | undefined,
): HeatState {
  const places = Object.entries(starts).flatMap(([channel, value]) => {
    const usual = window[channel];
    return usual ? [placeInWindow(value, usual)] : [];
  });
  if (places.length === 0) return 'unknown';
  const colder = places.includes('below');
  const cold = Object.entries(starts).some(
    ([channel, value]) => value < (window[channel]?.fromC ?? -Infinity) - cooledByK,
  );
  if (cold && (restedMin === undefined || restedMin >= fullCoolDownMin)) return 'cold peak';
  if (places.includes('above')) return 'heat-soaked';
  return colder ? 'cool' : 'ready';
}
