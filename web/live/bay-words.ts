import type { BayState } from '../../contract/bays/live.ts';

/** What goes on in a bay, in a word, and whether something is wrong there. */
export interface BayWord {
  word: string;
  /** `bad`: nothing can be recorded; `busy`: something is being recorded. */
  mark: 'calm' | 'busy' | 'bad';
  /** The whole story, where there is more to say. */
  more: string | null;
}

export function bayWord({ devices, recorder, mounted }: BayState): BayWord {
  const dyno = devices.find((device) => device.dyno !== null);
  const fault = devices.find((device) => device.problem !== null || (device.connected && !device.heard));
  const more = recorder.problem ?? (fault ? `${fault.name}: ${fault.problem ?? 'silent'}` : null);
  if (recorder.state === 'recording') return { word: recorder.label ?? 'recording', mark: 'busy', more };
  if (!dyno) return { word: 'no dyno', mark: 'bad', more };
  if (!dyno.heard) return { word: dyno.connected ? 'dyno silent' : 'dyno away', mark: 'bad', more };
  if (recorder.state === 'armed') return { word: 'waits for a pull', mark: 'calm', more };
  if (recorder.state === 'sealing') return { word: 'storing', mark: 'calm', more };
  return { word: mounted ? 'car on it' : 'empty', mark: 'calm', more };
}
