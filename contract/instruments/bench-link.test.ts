import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { problemIn } from '../files/machine-and-air.ts';
import { deviceMessage, frameMessage, helloMessage, soundFrame } from './bench-link.ts';

const testDyno = {
  kind: 'inertia-roller',
  inertiaKgM2: 50,
  radiusM: 0.25,
  parasitic: { aNm: 5, bNmPerRadS: 0.05, cNmPerRadS2: 0 },
};

const hello = {
  type: 'hello',
  protocol: 1,
  device: 'roller',
  kind: 'inertia-roller',
  channels: [{ name: 'rollerSpeed', unit: 'rad/s' }],
  dyno: testDyno,
};

describe('bench link', () => {
  test('a hello is taken, commands default to none, and strange fields are no fault', () => {
    expect(helloMessage.parse({ ...hello, colour: 'red' })).toMatchObject({ commands: [], device: 'roller' });
    expect(helloMessage.safeParse({ ...hello, kind: 'weather', dyno: undefined }).success).toBe(true);
  });

  test.each([
    [{ ...hello, protocol: 2 }, /protocol/],
    [{ ...hello, dyno: undefined }, /a dyno must describe itself/],
    [{ ...hello, dyno: { ...testDyno, inertiaKgM2: 'heavy' } }, /dyno\.inertiaKgM2/],
    [{ ...hello, channels: [] }, /channels/],
    [{ ...hello, startedAt: 'yesterday' }, /startedAt/],
    [{ ...hello, engineToDrumRatio: 0 }, /engineToDrumRatio/],
  ])('%j is refused with its place', (message, sentence) => {
    expect(problemIn(deviceMessage.safeParse(message).error!)).toMatch(sentence);
  });

  test('frames hold numbers and blanks only', () => {
    expect(frameMessage.safeParse({ type: 'frame', sequence: 1, time: 0.5, values: [1, null] }).success).toBe(true);
    for (const bad of [{ sequence: -1 }, { sequence: 1.5 }, { time: '1' }, { values: ['1'] }, { values: [Infinity] }]) {
      expect(frameMessage.safeParse({ type: 'frame', sequence: 1, time: 0.5, values: [1], ...bad }).success).toBe(
        false,
      );
    }
  });
});

test('what is told to be a frame at a look is what the schema takes', () => {
  const strange = fc.constantFrom<unknown>(
    null,
    undefined,
    'frame',
    '1',
    true,
    -1,
    1.5,
    Infinity,
    NaN,
    2 ** 60,
    [],
    {},
  );
  const value = fc.oneof({ weight: 6, arbitrary: fc.double() }, { weight: 1, arbitrary: strange });
  const values = fc.oneof(
    { weight: 6, arbitrary: fc.array(value, { maxLength: 70 }) },
    { weight: 1, arbitrary: strange },
  );
  const sequence = fc.oneof({ weight: 6, arbitrary: fc.nat() }, { weight: 1, arbitrary: strange });
  const type = fc.constantFrom('frame', 'frame', 'frame', 'event', 'hello');
  fc.assert(
    fc.property(fc.record({ type, sequence, time: value, values, more: fc.string() }), (content) => {
      const parsed = frameMessage.safeParse(content);
      expect(soundFrame(content)).toEqual(parsed.success ? parsed.data : undefined);
    }),
    { numRuns: 1000 },
  );
  for (const content of [null, undefined, 3, 'frame', []]) expect(soundFrame(content)).toBeUndefined();
});
