import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Recording } from '../recording/recording.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno } from '../testing/test-car.ts';
import { preparedSweep } from './prepared-sweep.ts';

const recordings = [1, 2, 3].map((seed) => generatedRun({ seed, speedNoise: 0.01 }));
const mapped = ({ time, channels }: Recording, clock: (at: number) => number, factor = 1): Recording => ({
  time: time.map(clock),
  channels: channels.map((channel) => ({ ...channel, values: channel.values.map((value) => value * factor) })),
});
const found = (recording: Recording) => preparedSweep(recording, testDyno).sweep;

test('when a recording begins says nothing of its sweep: shifted in time, it is found at the same place', () => {
  fc.assert(
    fc.property(fc.constantFrom(...recordings), fc.double({ min: -500, max: 5000, noNaN: true }), (recording, byS) => {
      const [plain, shifted] = [found(recording), found(mapped(recording, (at) => at + byS))];
      // Within a sample: times that are not round fall on its other side.
      expect(Math.abs(shifted.startS - byS - plain.startS)).toBeLessThan(0.0051);
      expect(Math.abs(shifted.endS - byS - plain.endS)).toBeLessThan(0.0051);
    }),
    { numRuns: 25 },
  );
});

test('a dyno that reads all speeds a few percent high or low finds the same sweep', () => {
  fc.assert(
    fc.property(fc.constantFrom(...recordings), fc.double({ min: 0.9, max: 1.1, noNaN: true }), (recording, factor) => {
      const [plain, scaled] = [found(recording), found(mapped(recording, (at) => at, factor))];
      expect(Math.abs(scaled.startS - plain.startS)).toBeLessThan(0.06);
      expect(Math.abs(scaled.endS - plain.endS)).toBeLessThan(0.06);
    }),
    { numRuns: 25 },
  );
});
