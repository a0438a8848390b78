import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { drumPlaces, torqueChannels } from '../../contract/files/drums.ts';
import { helloMessage } from '../../contract/instruments/bench-link.ts';
import { drumPlaces as coreDrumPlaces } from '../../core/dyno/dyno-profile.ts';
import { torqueChannels as coreTorqueChannels } from '../../core/recording/channels.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { PreBuffer } from '../run/pre-buffer.ts';
import { channelIntake } from './channel-intake.ts';
import { LineReader } from '../../contract/values/line-reader.ts';

describe('lines', () => {
  test('come out whole however the bytes are cut, and blank ones not at all', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'grapheme-ascii', maxLength: 12 }).filter((line) => line.trim() !== '')),
        fc.array(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        (lines, cuts) => {
          const text = lines.map((line) => `${line}\n\n`).join('');
          const seen: string[] = [];
          const reader = new LineReader(
            100,
            (line) => seen.push(line),
            () => seen.push('too long'),
          );
          for (let at = 0, cut = 0; at < text.length; cut++) {
            const length = cuts[cut % cuts.length]!;
            reader.push(text.slice(at, at + length));
            at += length;
          }
          expect(seen).toEqual(lines);
        },
      ),
    );
  });

  test('one that is too long is given up once, and the next is read', () => {
    const seen: string[] = [];
    const reader = new LineReader(
      10,
      (line) => seen.push(line),
      () => seen.push('too long'),
    );
    reader.push('a'.repeat(15));
    reader.push('b'.repeat(50));
    reader.push('\nnext\n');
    expect(seen).toEqual(['too long', 'next']);
  });
});

describe('channels of an instrument', () => {
  test('a dyno with several drums is refused where one is missing, and says which', () => {
    const hello = (kind: 'hub' | 'loaded-roller' | 'inertia-roller', names: string[]) =>
      helloMessage.parse({
        type: 'hello',
        protocol: 1,
        device: 'drums',
        kind,
        channels: [
          ...names.map((name) => ({ name, unit: name.startsWith('absorber') ? 'N·m' : 'rad/s' })),
          { name: 'engineSpeed', unit: 'rpm' },
        ],
        dyno: { ...testDyno, kind },
      });
    const four = ['FrontLeft', 'FrontRight', 'RearLeft', 'RearRight'];
    const whole = [...four.map((place) => `hubSpeed${place}`), ...four.map((place) => `absorberTorque${place}`)];
    expect(channelIntake(hello('hub', whole)).channels).toHaveLength(9);
    expect(() => channelIntake(hello('hub', whole.slice(0, -1)))).toThrow(/absorberTorqueRearRight is not there/);
    expect(() => channelIntake(hello('loaded-roller', ['rollerSpeedFront', 'rollerSpeedRear']))).toThrow(
      /absorberTorqueFront and absorberTorqueRear are not there/,
    );
    expect(channelIntake(hello('inertia-roller', ['rollerSpeedFront', 'rollerSpeedRear'])).channels).toHaveLength(3);
  });

  test('the contract and the core know the same drums and load cells', () => {
    expect([...drumPlaces]).toEqual([...coreDrumPlaces]);
    expect([...torqueChannels].sort()).toEqual([...coreTorqueChannels].sort());
  });

  const intake = (channels: { name: string; unit: string }[], dyno: unknown = testDyno) =>
    channelIntake(
      helloMessage.parse({ type: 'hello', protocol: 1, device: 'x', kind: 'inertia-roller', channels, dyno }),
    );

  test('are converted to the unit they are kept in; strangers stay as they are', () => {
    const { channels, conversions } = intake([
      { name: 'rollerSpeed', unit: 'rpm' },
      { name: 'intakeTemperature', unit: '°F' },
      { name: 'mood', unit: 'points' },
      { name: 'boost', unit: 'furlong' },
      { name: 'engineSpeed', unit: 'rpm' },
    ]);
    expect(channels.map((channel) => channel.unit)).toEqual(['rad/s', '°C', 'points', 'furlong', 'rpm']);
    expect(conversions[0]!(60)).toBeCloseTo(2 * Math.PI, 9);
    expect(conversions[1]!(212)).toBeCloseTo(100, 9);
    expect(conversions[2]!(7)).toBe(7);
  });

  test.each([
    [[{ name: 'rollerSpeed', unit: 'furlong' }], /furlong/],
    [[{ name: 'engineSpeed', unit: 'rpm' }], /needs a rollerSpeed/],
    [
      [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'rollerSpeed', unit: 'rad/s' },
      ],
      /twice/,
    ],
    [
      [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'time', unit: 's' },
      ],
      /every frame carries its time/,
    ],
  ])('%j is refused', (channels, sentence) => {
    expect(() => intake(channels)).toThrow(sentence);
  });
});

test('the buffer keeps its span and begins anew with a new clock', () => {
  const buffer = new PreBuffer(2);
  for (let row = 0; row <= 1000; row++) buffer.push(Float64Array.of(row / 100, row));
  expect(buffer.since(9)).toHaveLength(101);
  const kept = buffer.since(-Infinity);
  expect(kept[0]![0]).toBeGreaterThanOrEqual(7.4);
  expect(kept[0]![0]).toBeLessThanOrEqual(8);
  buffer.push(Float64Array.of(1, 0));
  expect(buffer.since(0)).toHaveLength(1);
});
