/** Temperatures that baseline runs started at, °C, by channel: the window to return to before the next run. */
export type StartWindow = Record<string, { fromC: number; toC: number }>;

/** Temperatures that follow the load at once tell nothing of how an engine stands before a pull. */
const passing = ['exhaustTemperature', 'airTemperature'];

/** True for a channel whose temperature says how an engine stands. */
export function tellsHeat(channel: string): boolean {
  return channel.endsWith('Temperature') && !passing.includes(channel);
}

/** A start this close to those of the runs is as good as one of them, K: windows are widened by it. */
export const toleranceK = 2;

/**
 * The window of starting temperatures over a set of runs, widened by a small tolerance.
 * @param starts one record of channel → °C a run
 */
export function startWindow(starts: readonly Record<string, number>[]): StartWindow {
  const window: StartWindow = {};
  for (const start of starts) {
    for (const [channel, value] of Object.entries(start)) {
      if (!tellsHeat(channel)) continue;
      const present = window[channel];
      window[channel] = present
        ? { fromC: Math.min(present.fromC, value - toleranceK), toC: Math.max(present.toC, value + toleranceK) }
        : { fromC: value - toleranceK, toC: value + toleranceK };
    }
  }
  return window;
}

/** Where a temperature stands against a window. */
export function placeInWindow(value: number, window: { fromC: number; toC: number }): 'below' | 'inside' | 'above' {
  if (value < window.fromC) return 'below';
  return value > window.toC ? 'above' : 'inside';
}
