import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { momentWord, whyNotReady } from '../wording/moment-words.ts';
import { Coasting } from './coasting.ts';
import { momentOf, type Circumstances } from './moment.ts';
import { waitBefore, type Wait } from './wait.ts';

const noWait: Wait = { restedS: 600, waitS: 0, for: undefined, rangeS: undefined, outside: [], untold: [] };
const fine: Circumstances = {
  connected: true,
  recorderHeard: true,
  mounted: true,
  dynoHeard: true,
  recorder: 'idle',
  coasting: false,
  resultOpen: false,
  cautionsRead: true,
  failedItems: 0,
  brokenRun: undefined,
  wait: noWait,
};
const said = (over: Partial<Circumstances>) => {
  const moment = momentOf({ ...fine, ...over });
  return [momentWord[moment.is], whyNotReady(moment)];
};

describe('the state of a bay', () => {
  test.each<[Partial<Circumstances>, string, string]>([
    [{}, 'Ready', ''],
    [{ connected: false, recorder: 'recording' }, 'No server', ''],
    [{ mounted: false }, 'Not on the dyno', ''],
    [{ dynoHeard: false }, 'No dyno connected', ''],
    [{ recorder: 'armed', failedItems: 2 }, 'Waiting for the pull', ''],
    [{ recorder: 'recording', brokenRun: 'B1' }, 'Recording', ''],
    [{ recorder: 'sealing', coasting: true }, 'Coasting', ''],
    [{ recorder: 'sealing' }, 'Storing', ''],
    [{ coasting: true, resultOpen: true }, 'Coasting', ''],
    [{ resultOpen: true, brokenRun: 'B1' }, 'Result', ''],
    [{ brokenRun: 'B1' }, 'Not ready', 'B1 broke a limit.'],
    [{ failedItems: 1 }, 'Not ready', 'An item failed in the inspection.'],
    [
      { failedItems: 3, cautionsRead: false },
      'Not ready',
      '3 items failed in the inspection; the cautions have not been read.',
    ],
    [{ wait: { ...noWait, waitS: 425, for: 'rest' } }, 'Not ready', '7:05 min until the planned rest ends.'],
    [
      { wait: { ...noWait, waitS: 180, for: 'heat', rangeS: [120, 400] } },
      'Not ready',
      '≈ 3:00 min until it is as warm as at the baseline’s starts (2 min to 7 min).',
    ],
    [
      { wait: { ...noWait, outside: ['oilTemperature'], untold: ['oilTemperature'] } },
      'Not ready',
      'Outside of the baseline’s window: oil.',
    ],
  ])('%j: %s %s', (over, word, why) => {
    expect(said(over)).toEqual([word, why]);
  });

  test('is Ready only where nothing at all speaks against it', () => {
    // Mostly as it should be, or nothing would ever be ready.
    const mostly = <T>(usual: T, ...others: T[]) => fc.constantFrom(usual, usual, usual, usual, usual, ...others);
    const drawn = fc.record({
      connected: mostly(true, false),
      recorderHeard: mostly(true, false),
      mounted: mostly(true, false),
      dynoHeard: mostly(true, false),
      coasting: mostly(false, true),
      resultOpen: mostly(false, true),
      cautionsRead: mostly(true, false),
      recorder: mostly<Circumstances['recorder']>('idle', 'armed', 'recording', 'sealing'),
      failedItems: mostly(0, 1, 2),
      brokenRun: mostly<string | undefined>(undefined, 'B1'),
      wait: mostly<Wait>(
        noWait,
        { ...noWait, waitS: 3, for: 'rest' },
        { ...noWait, untold: ['coolantTemperature'], outside: ['coolantTemperature'] },
      ),
    });
    let ready = 0;
    fc.assert(
      fc.property(drawn, (now) => {
        const nothing =
          now.connected &&
          now.recorderHeard &&
          now.mounted &&
          now.dynoHeard &&
          now.cautionsRead &&
          !now.coasting &&
          !now.resultOpen &&
          now.recorder === 'idle' &&
          now.failedItems === 0 &&
          now.brokenRun === undefined &&
          now.wait === noWait;
        const moment = momentOf(now);
        expect(moment.is === 'ready').toBe(nothing);
        expect(moment.is === 'not ready').toBe(whyNotReady(moment) !== '');
        ready += nothing ? 1 : 0;
      }),
      { numRuns: 300 },
    );
    expect(ready).toBeGreaterThan(10);
  });
});

describe('the wait', () => {
  const standing = { endsMs: [0, 60_000], nowMs: 180_000, coolDownMin: 5, window: {}, nowC: {}, times: {} };
  test('is for the planned rest, or for the slower of the temperatures, whichever lasts longer', () => {
    expect(waitBefore(standing)).toMatchObject({ restedS: 120, waitS: 180, for: 'rest' });
    const window = { oilTemperature: { fromC: 80, toC: 90 }, coolantTemperature: { fromC: 80, toC: 90 } };
    const nowC = { oilTemperature: 110, coolantTemperature: 95 };
    const times = {
      oilTemperature: { when: 'in' as const, seconds: 400, leastS: 300, mostS: 600 },
      coolantTemperature: { when: 'in' as const, seconds: 100, leastS: 90, mostS: 110 },
    };
    expect(waitBefore({ ...standing, window, nowC, times })).toMatchObject({
      waitS: 400,
      for: 'heat',
      rangeS: [300, 600],
      outside: ['oilTemperature', 'coolantTemperature'],
      untold: [],
    });
    expect(waitBefore({ ...standing, window, nowC, times: {} })).toMatchObject({
      waitS: 180,
      untold: ['oilTemperature', 'coolantTemperature'],
    });
    expect(waitBefore({ ...standing, window, nowC: {}, times: {} })).toMatchObject({ outside: [], untold: [] });
  });
  test('before the first run there is none', () => {
    expect(waitBefore({ ...standing, endsMs: [] })).toMatchObject({ restedS: undefined, waitS: 0, for: undefined });
  });
});

describe('coasting', () => {
  const over = (speedAt: (timeS: number) => number, forS: number) => {
    const coasting = new Coasting();
    for (let at = 0; at <= forS; at += 0.01) coasting.push(at, speedAt(at));
    return !coasting.goesOn;
  };
  test('goes on while the drum slows down, and ends when it stands or is driven again', () => {
    expect(over((at) => 90 * Math.exp(-at / 40), 30)).toBe(false);
    expect(over((at) => Math.max(0, 90 - 20 * at), 4)).toBe(false);
    expect(over((at) => Math.max(0, 90 - 20 * at), 6)).toBe(true);
    expect(over((at) => (at < 5 ? 90 - 5 * at : 65), 9)).toBe(true);
    expect(over((at) => (at < 5 ? 90 - 5 * at : 65 + at), 9)).toBe(true);
    expect(over(() => 20, 2.9)).toBe(false);
    expect(over(() => 20, 3.2)).toBe(true);
    // A heavy roller without a brake, read with some noise.
    expect(over((at) => 200 * Math.exp(-at / 300) * (1 + 2e-4 * Math.sin(997 * at)), 60)).toBe(false);
  });
});
