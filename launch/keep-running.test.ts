import { describe, expect, test } from '@jest/globals';
import { keepRunning, pauseAfter, type Kept } from './keep-running.ts';

describe('the pause before the next start', () => {
  test('grows with the latest deaths, forgets old ones, and never grows for ever', () => {
    expect(pauseAfter([], 0)).toBe(0);
    expect(
      [1, 2, 3, 4].map((deaths) =>
        pauseAfter(
          Array.from({ length: deaths }, () => 0),
          1,
        ),
      ),
    ).toEqual([250, 500, 1000, 2000]);
    expect(
      pauseAfter(
        Array.from({ length: 500 }, () => 0),
        1,
      ),
    ).toBe(30_000);
    // Six deaths in a year are six single ones.
    const year = Array.from({ length: 6 }, (_, month) => month * 60 * 24 * 3600e3);
    expect(pauseAfter(year, year.at(-1)! + 1)).toBe(250);
  });
});

/** Something that dies when it is told to. */
class Program implements Kept {
  private end!: () => void;
  stopped = false;
  readonly ended = new Promise<void>((resolve) => (this.end = resolve));
  die() {
    this.end();
  }
  stop() {
    this.stopped = true;
    this.end();
    return Promise.resolve();
  }
}

const turns = async () => {
  for (let turn = 0; turn < 20; turn++) await Promise.resolve();
};

/** A keeper over programs that are started one after the other, with a clock of its own. */
async function kept(failing: readonly number[] = []) {
  const programs: Program[] = [];
  const said: string[] = [];
  const pauses: number[] = [];
  let clock = 0;
  let starts = 0;
  const keeper = await keepRunning<Program>({
    name: 'server',
    start: () => {
      if (failing.includes(starts++)) return Promise.reject(new Error('the database does not answer'));
      programs.push(new Program());
      return Promise.resolve(programs.at(-1)!);
    },
    revived: () => said.push('revived'),
    died: (sentence) => said.push(sentence),
    wait: (ms) => {
      pauses.push(ms);
      clock += ms;
      return Promise.resolve();
    },
    now: () => clock,
  });
  return { keeper, programs, said, pauses, pass: (ms: number) => (clock += ms) };
}

describe('what is kept running', () => {
  test('comes back after every death, however many there were', async () => {
    const { programs, pauses, pass } = await kept();
    for (let death = 0; death < 40; death++) {
      programs.at(-1)!.die();
      await turns();
      pass(60_000);
    }
    expect(programs).toHaveLength(41);
    expect(Math.max(...pauses)).toBeLessThanOrEqual(30_000);
  });

  test('is tried again while what it needs is away, and each try waits longer', async () => {
    const { programs, said, pauses } = await kept([1, 2, 3]);
    programs[0]!.die();
    await turns();
    expect(programs).toHaveLength(2);
    expect(pauses).toEqual([250, 500, 1000, 2000]);
    expect(said.filter((text) => text.includes('did not start: the database does not answer'))).toHaveLength(3);
    expect(said.at(-1)).toBe('revived');
  });

  test('tells at once where the very first start fails', async () => {
    await expect(kept([0])).rejects.toThrow('the database does not answer');
  });

  test('is stopped for good, also while it is being started again', async () => {
    const { keeper, programs } = await kept();
    const [first] = programs;
    await keeper.stop();
    await turns();
    expect(first!.stopped).toBe(true);
    expect(programs).toHaveLength(1);
    const other = await kept();
    other.programs[0]!.die();
    await other.keeper.stop();
    await turns();
    expect(other.programs.every((program, index) => index === 0 || program.stopped)).toBe(true);
  });

  test('that is just being started again is stopped before the stop is over: nothing is left behind', async () => {
    const programs: Program[] = [];
    let go!: () => void;
    const gate = new Promise<void>((resolve) => (go = resolve));
    const keeper = await keepRunning<Program>({
      name: 'database',
      start: async () => {
        if (programs.length > 0) await gate;
        programs.push(new Program());
        return programs.at(-1)!;
      },
      revived: () => undefined,
      died: () => undefined,
      wait: () => Promise.resolve(),
    });
    programs[0]!.die();
    await turns();
    let over = false;
    const stopped = keeper.stop().then(() => (over = true));
    await turns();
    expect(over).toBe(false);
    go();
    await stopped;
    expect(programs.map((program) => program.stopped)).toEqual([false, true]);
  });
});
