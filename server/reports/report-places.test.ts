import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ReportPlaces } from './report-places.ts';

test('never more at once than there are places; all are done, whoever fails or is cancelled', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 1, max: 3 }),
      fc.array(fc.constantFrom('done', 'fails', 'cancelled'), { maxLength: 12 }),
      async (places, asked) => {
        const queue = new ReportPlaces(places);
        let [now, most] = [0, 0];
        const outcomes = await Promise.allSettled(
          asked.map((how) => {
            const cancel = new AbortController();
            if (how === 'cancelled') cancel.abort();
            return queue.use(cancel.signal, async () => {
              most = Math.max(most, ++now);
              await new Promise((resolve) => setImmediate(resolve));
              now--;
              if (how === 'fails') throw new Error('it failed');
              return how;
            });
          }),
        );
        expect(outcomes.map(({ status }) => status)).toEqual(
          asked.map((how) => (how === 'done' ? 'fulfilled' : 'rejected')),
        );
        expect(most).toBeLessThanOrEqual(places);
        // Every place is free again.
        await expect(queue.use(new AbortController().signal, () => Promise.resolve('after'))).resolves.toBe('after');
      },
    ),
    { numRuns: 60 },
  );
});
