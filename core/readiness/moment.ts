import type { Wait } from './wait.ts';

/** Why the next run would not be what it is meant to be. Nothing is blocked by any of it. */
export type Hindrance =
  | { of: 'cautions' }
  /** Items of the inspection that failed. */
  | { of: 'inspection'; items: number }
  /** The last run of this setup broke a limit. */
  | { of: 'limit'; run: string }
  | { of: 'wait'; wait: Wait }
  /** Temperatures stand outside of the window, and nobody can tell for how long. */
  | { of: 'heat'; channels: string[] };

/** What goes on in a bay: the one state that Record and the driver's view say. */
export type Moment =
  | {
      is:
        | 'no connection'
        | 'no recorder'
        | 'not mounted'
        | 'no dyno'
        | 'ready'
        | 'waiting'
        | 'recording'
        | 'coasting'
        | 'storing'
        | 'result';
    }
  | { is: 'not ready'; why: readonly [Hindrance, ...Hindrance[]] };

export interface Circumstances {
  /** The page hears the server. */
  connected: boolean;
  /** The server hears the recorder. */
  recorderHeard: boolean;
  mounted: boolean;
  /** The dyno says something. */
  dynoHeard: boolean;
  recorder: 'idle' | 'armed' | 'recording' | 'sealing';
  /** A run has ended and the drum still slows down. */
  coasting: boolean;
  /** A run's result is being looked at. */
  resultOpen: boolean;
  cautionsRead: boolean;
  failedItems: number;
  /** The last run of the setup on the dyno, where it broke a limit. */
  brokenRun: string | undefined;
  wait: Wait;
}

/** The one state of a bay: what is going on counts before what comes next. */
export function momentOf(now: Circumstances): Moment {
  if (!now.connected) return { is: 'no connection' };
  if (!now.recorderHeard) return { is: 'no recorder' };
  if (!now.mounted) return { is: 'not mounted' };
  switch (now.recorder) {
    case 'recording':
      return { is: 'recording' };
    case 'armed':
      return { is: 'waiting' };
    case 'sealing':
      return { is: now.coasting ? 'coasting' : 'storing' };
    case 'idle':
  }
  if (!now.dynoHeard) return { is: 'no dyno' };
  if (now.coasting) return { is: 'coasting' };
  if (now.resultOpen) return { is: 'result' };
  const [first, ...others] = hindrances(now);
  return first ? { is: 'not ready', why: [first, ...others] } : { is: 'ready' };
}

/** The gravest first. */
function hindrances({ brokenRun, failedItems, cautionsRead, wait }: Circumstances): Hindrance[] {
  return [
    ...(brokenRun === undefined ? [] : [{ of: 'limit' as const, run: brokenRun }]),
    ...(failedItems > 0 ? [{ of: 'inspection' as const, items: failedItems }] : []),
    ...(cautionsRead ? [] : [{ of: 'cautions' as const }]),
    ...(wait.waitS > 0 ? [{ of: 'wait' as const, wait }] : []),
    ...(wait.untold.length > 0 ? [{ of: 'heat' as const, channels: wait.untold }] : []),
  ];
}
