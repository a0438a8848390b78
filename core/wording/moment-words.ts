import type { Hindrance, Moment } from '../readiness/moment.ts';
import type { MissedBand } from '../readiness/missed-band.ts';
import type { Wait } from '../readiness/wait.ts';
import { channelLabel } from '../recording/channels.ts';
import { spokenRpm } from '../units/spoken.ts';
import { clockWords, minutesWords } from './minutes-words.ts';

/** A bay's state in the word that Record says, large. */
export const momentWord: Record<Moment['is'], string> = {
  'no connection': 'No server',
  'not mounted': 'Not on the dyno',
  'no recorder': 'The recorder is silent',
  'no dyno': 'No dyno connected',
  'not ready': 'Not ready',
  ready: 'Ready',
  waiting: 'Waiting for the pull',
  recording: 'Recording',
  coasting: 'Coasting',
  storing: 'Storing',
  result: 'Result',
};

/** What is waited for: `until the planned rest ends`. */
export function waitReason({ for: what, rangeS: [least, most] = [0, 0] }: Wait): string {
  if (what !== 'heat') return 'until the planned rest ends';
  const range = most > 1.15 * least ? ` (${minutesWords(least)} to ${minutesWords(most)})` : '';
  return `until it is as warm as at the baseline’s starts${range}`;
}

/** How long is to be waited, and for what: `7:05 min until the planned rest ends`. */
const waitWords = (wait: Wait): string => `${waitTime(wait)} ${waitReason(wait)}`;

/** How long; by the cooling so far it is an estimate, and says so. */
export const waitTime = (wait: Wait): string => `${wait.for === 'heat' ? '≈ ' : ''}${clockWords(wait.waitS)}`;

/** One reason in a few words. */
function hindranceWords(why: Hindrance): string {
  switch (why.of) {
    case 'limit':
      return `${why.run} broke a limit`;
    case 'inspection':
      return why.items === 1 ? 'an item failed in the inspection' : `${why.items} items failed in the inspection`;
    case 'cautions':
      return 'the cautions have not been read';
    case 'wait':
      return waitWords(why.wait);
    case 'heat':
      return `outside of the baseline’s window: ${why.channels.map((channel) => channelLabel(channel).toLowerCase()).join(', ')}`;
  }
}

/** Why it is not ready, all of it in a sentence, the gravest first; empty for every other state. */
export function whyNotReady(moment: Moment): string {
  if (moment.is !== 'not ready') return '';
  const words = moment.why.map(hindranceWords).join('; ');
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}

const toldBy = { plan: 'As planned it', speed: 'Now it', 'last run': 'The last run' } as const;

/** That the next pull leaves a band out: `Now it begins above your band pull-in: 2,450 instead of 2,000 rpm.` */
export function missedBandWords({ name, by, fromRpm, toRpm, beginsRpm, endsRpm }: MissedBand): string {
  const which = name === '' ? 'your band' : `your band ${name}`;
  return beginsRpm === undefined
    ? `${toldBy[by]} ends below ${which}: ${spokenRpm(endsRpm ?? 0)} instead of ${spokenRpm(toRpm)} rpm.`
    : `${toldBy[by]} begins above ${which}: ${spokenRpm(beginsRpm)} instead of ${spokenRpm(fromRpm)} rpm.`;
}
