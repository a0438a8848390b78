import { describe, expect, test } from '@jest/globals';
import type { Recording } from '../recording/recording.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { idleRun, roadDrive, startRun, transientRun } from '../testing/kind-runs.ts';
import { steppedDyno, steppedRatio, steppedRun } from '../testing/stepped-run.ts';
import { testDyno } from '../testing/test-car.ts';
import { onTheRoad } from '../dyno/dyno-profile.ts';
import { kindOfFile, mustBe } from './kind-of-file.ts';

/** As a dyno records it: its drum stands meanwhile. */
const standing = ({ time, channels }: Recording): Recording => ({
  time,
  channels: [{ name: 'rollerSpeed', unit: 'rad/s', values: time.map((_, at) => 0.02 * (at % 2)) }, ...channels],
});

describe('what a file is, by itself', () => {
  test('an idle and a start with the drum standing, holds, a cruise, a pull', () => {
    expect(kindOfFile(standing(idleRun({ seed: 1 })), testDyno)).toBe('idle');
    expect(kindOfFile(standing(startRun({ seed: 1 })), testDyno)).toBe('cold-start');
    expect(kindOfFile(steppedRun({ speedsRpm: [2500, 3000, 3500], dwellS: 4 }), steppedDyno, steppedRatio)).toBe(
      'step',
    );
    expect(kindOfFile(generatedRun({}), testDyno)).toBe('power');
    const held = steppedRun({ speedsRpm: [2600], dwellS: 80 });
    const light = {
      ...held,
      channels: [...held.channels, { name: 'throttle', unit: '%', values: held.time.map(() => 25) }],
    };
    expect(kindOfFile(light, steppedDyno, steppedRatio)).toBe('cruise');
    // Full throttle at one speed is no cruise, and not sure to be anything else.
    const full = {
      ...held,
      channels: [...held.channels, { name: 'throttle', unit: '%', values: held.time.map(() => 99) }],
    };
    expect(() => kindOfFile(full, steppedDyno, steppedRatio)).toThrow();
  });

  test('what somebody says must be in it', () => {
    mustBe('idle', standing(idleRun({ seed: 2 })), testDyno);
    expect(() => mustBe('cold-start', standing(idleRun({ seed: 2 })), testDyno)).toThrow(/turning already/);
    expect(() => mustBe('idle', standing(idleRun({ seed: 2, seconds: 6 })), testDyno)).toThrow(/15 s at least/);
  });

  test('a drive on the road has a road speed and no drum’s; a step of the throttle a held speed', () => {
    expect(kindOfFile(roadDrive({ seed: 1 }), onTheRoad)).toBe('road-check');
    const { recording: own } = transientRun({ seed: 1 });
    const rpm = own.time.map(() => 2600);
    expect(
      kindOfFile({ ...own, channels: [...own.channels, { name: 'engineSpeed', unit: 'rpm', values: rpm }] }, testDyno),
    ).toBe('transient');
    // A pull from the same pedal.
    const sweep = generatedRun({});
    const pedal = sweep.time.map((at) => (at < 2 ? 10 : 100));
    expect(
      kindOfFile({ ...sweep, channels: [...sweep.channels, { name: 'throttle', unit: '%', values: pedal }] }, testDyno),
    ).toBe('power');
    expect(() => mustBe('power', roadDrive({ seed: 1 }), onTheRoad)).toThrow(/no drum turned under it/);
  });
});
