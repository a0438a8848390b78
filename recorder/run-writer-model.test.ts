import { expect, jest, test } from '@jest/globals';
import fc from 'fast-check';
import type { Run } from '../contract/records.ts';
import type { NewRun, RecorderStore } from './recorder-store.ts';
import { RunWriter } from './run-writer.ts';

/** A store that fails as it is told: a call is refused, or done and its answer lost. */
class ShakyStore {
  readonly chunks = new Map<string, number[]>();
  sealed: 'sealed' | 'interrupted' | undefined;
  runs = 0;

  constructor(private readonly fates: ('works' | 'refuses' | 'answer lost')[]) {}

  private async meets<T>(act: () => T): Promise<T> {
    const fate = this.fates.shift() ?? 'works';
    if (fate === 'refuses') throw new Error('away');
    const result = act();
    if (fate === 'answer lost') throw new Error('answer lost');
    return Promise.resolve(result);
  }

  readonly asStore = {
    addRun: () => this.meets(() => ({ id: ++this.runs }) as Run),
    appendChunk: (_runId: number, source: number, sequence: number, columns: Float64Array[]) =>
      this.meets(() => {
        const key = `${source}/${sequence}`;
        // As the database does: one that is there is left as it is.
        if (!this.chunks.has(key)) this.chunks.set(key, [...columns[1]!]);
      }),
    sealRun: (_run: Run, as: 'sealed' | 'interrupted') => this.meets(() => void (this.sealed ??= as)),
  } as unknown as RecorderStore;

  /** Values of a source in the order of their chunks. */
  stored(source: number): number[] {
    const sourceChunks = [...this.chunks].filter(([key]) => key.startsWith(`${source}/`));
    return sourceChunks
      .sort(([a], [b]) => Number(a.split('/')[1]) - Number(b.split('/')[1]))
      .flatMap(([, values]) => values);
  }
}

type Event = { do: 'rows'; source: number; count: number } | { do: 'wait'; ms: number };
const events: fc.Arbitrary<Event[]> = fc.array(
  fc.oneof(
    fc.record({
      do: fc.constant('rows' as const),
      source: fc.constantFrom(0, 1),
      count: fc.integer({ min: 1, max: 30 }),
    }),
    fc.record({ do: fc.constant('wait' as const), ms: fc.integer({ min: 1, max: 900 }) }),
  ),
  { maxLength: 25 },
);
const fates = fc.array(fc.constantFrom('works' as const, 'refuses' as const, 'answer lost' as const), {
  maxLength: 20,
});

test('in whatever order rows come and the store fails, every row is kept once and in its order, and the run is sealed', async () => {
  jest.useFakeTimers();
  await fc.assert(
    fc.asyncProperty(events, fates, async (happening, faults) => {
      // The answer to the beginning is never lost here: a run that is begun twice leaves an empty one.
      const store = new ShakyStore(['works', ...faults]);
      const problems: (string | null)[] = [];
      const writer = new RunWriter(store.asStore, {} as NewRun, (problem) => problems.push(problem));
      const sent: Record<number, number[]> = { 0: [], 1: [] };
      let next = 0;
      for (const event of happening) {
        if (event.do === 'wait') await jest.advanceTimersByTimeAsync(event.ms);
        else {
          const rows = Array.from({ length: event.count }, () => Float64Array.of(next / 100, next++));
          sent[event.source]!.push(...rows.map((row) => row[1]!));
          writer.push(rows, event.source);
        }
      }
      writer.end('sealed', []);
      await jest.advanceTimersByTimeAsync(60_000);
      await writer.sealed;
      expect(store.stored(0)).toEqual(sent[0]);
      expect(store.stored(1)).toEqual(sent[1]);
      expect(store.sealed).toBe('sealed');
      // Whatever went wrong was told, and that it is over.
      expect(problems.at(-1)).toBeNull();
    }),
    { numRuns: 200 },
  );
  jest.useRealTimers();
});

test('a run that begins while the one before it could not be entered gets the later number', async () => {
  jest.useFakeTimers();
  const store = new ShakyStore(['refuses', 'works', 'works']);
  const first = new RunWriter(store.asStore, {} as NewRun, () => undefined);
  const second = new RunWriter(store.asStore, {} as NewRun, () => undefined, first);
  for (const writer of [first, second]) {
    writer.push([Float64Array.of(0, 1)]);
    writer.end('sealed', []);
  }
  await jest.advanceTimersByTimeAsync(5_000);
  expect([(await first.sealed).id, (await second.sealed).id]).toEqual([1, 2]);
  jest.useRealTimers();
});
