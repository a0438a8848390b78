/** Something that was started: it ends by itself or when it is asked to. */
export interface Kept {
  ended: Promise<void>;
  stop(): Promise<void>;
}

/** Deaths longer ago than this are forgotten, ms. */
const windowMs = 10 * 60_000;
const firstPauseMs = 250;
const longestPauseMs = 30_000;

/**
 * How long to wait before the next start: longer with every death of the last
 * ten minutes, and never so long that nobody would wait for it.
 * @param deaths when it died, ms
 */
export function pauseAfter(deaths: readonly number[], nowMs: number): number {
  const lately = deaths.filter((at) => nowMs - at < windowMs).length;
  return lately === 0 ? 0 : Math.min(longestPauseMs, firstPauseMs * 2 ** (lately - 1));
}

/** What the keeper tells, and how it waits. */
export interface Keeping<T extends Kept> {
  name: string;
  start: () => Promise<T>;
  /** It runs again. */
  revived: (kept: T) => void;
  /** A death, or a start that failed, as a sentence. */
  died: (sentence: string) => void;
  wait?: (ms: number) => Promise<void>;
  now?: () => number;
}

/**
 * Keeps something running for ever: whatever ends by itself, and whatever does
 * not start, is started again after a pause that grows with its latest deaths.
 * Only the very first start may fail, so that a wrong setting is told at once.
 *
 * @returns a function that stops it for good
 */
export async function keepRunning<T extends Kept>(
  keeping: Keeping<T>,
): Promise<{ first: T; stop: () => Promise<void> }> {
  const { name, start, revived, died, now = Date.now } = keeping;
  const wait = keeping.wait ?? ((ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms).unref()));
  let stopNow = () => undefined as void;
  const stopping = new Promise<void>((resolve) => (stopNow = resolve));
  let reviving: Promise<void> = Promise.resolve();
  const deaths: number[] = [];
  let stopped = false;
  let current = await start();
  const first = current;
  const revive = async () => {
    while (!stopped) {
      deaths.push(now());
      const pauseMs = pauseAfter(deaths, now());
      died(
        `The ${name} has ended by itself; it is started again${pauseMs >= 1000 ? ` in ${Math.round(pauseMs / 1000)} s` : ''}`,
      );
      await Promise.race([wait(pauseMs), stopping]);
      if (stopped) return;
      try {
        current = await start();
        // Asked to stop while it was starting.
        if (stopped) return current.stop();
        watch(current);
        return revived(current);
      } catch (error) {
        died(`The ${name} did not start: ${(error as Error).message}`);
      }
    }
  };
  const watch = (kept: T) => void kept.ended.then(() => (stopped ? undefined : (reviving = revive())));
  watch(current);
  return {
    first,
    async stop() {
      stopped = true;
      stopNow();
      // What is being started now is there before it can be stopped.
      await reviving;
      await current.stop();
    },
  };
}
