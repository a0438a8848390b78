/** A stop was asked for while something was being started. */
export class Stopped extends Error {
  constructor() {
    super('it was stopped while it started');
  }
}

type Stop = () => Promise<void> | void;

/** What is being started when a stop is asked for is waited for so long; something that hangs ends with its starter, ms. */
const patienceMs = 30_000;

/**
 * What a start has started, to be stopped in the opposite order. Once a stop is
 * asked for nothing more is started; what is being started then is waited for
 * and stopped like the rest, so that a stop at any moment leaves nothing behind.
 */
export class Started {
  private readonly stops: Stop[] = [];
  private readonly beginning = new Set<Promise<unknown>>();
  private readonly asked = new AbortController();
  private ending: Promise<void> | undefined;

  /** Says that a stop was asked for: what takes long ends early. */
  get signal(): AbortSignal {
    return this.asked.signal;
  }

  /**
   * Starts something.
   * @param stopOf how it is stopped; nothing where it ends by itself
   * @throws Stopped where a stop is asked for before it is there
   */
  async begin<T>(start: () => Promise<T>, stopOf?: (started: T) => Stop): Promise<T> {
    this.mustGoOn();
    const begun = start().then((started) => {
      if (stopOf) this.stops.push(stopOf(started));
      return started;
    });
    this.beginning.add(begun);
    try {
      const started = await begun;
      this.mustGoOn();
      return started;
    } catch (error) {
      // Whatever failed after a stop was asked for failed because of it.
      this.mustGoOn();
      throw error;
    } finally {
      this.beginning.delete(begun);
    }
  }

  /** Has something stopped with the rest that is there already. */
  add(stop: Stop): void {
    this.stops.push(stop);
  }

  /** @throws Stopped once a stop was asked for */
  mustGoOn(): void {
    if (this.asked.signal.aborted) throw new Stopped();
  }

  /** Settles when nothing is left. */
  stop(): Promise<void> {
    return (this.ending ??= this.stopAll());
  }

  private async stopAll(): Promise<void> {
    this.asked.abort();
    let timer: NodeJS.Timeout | undefined;
    const patience = new Promise<void>((resolve) => (timer = setTimeout(resolve, patienceMs)));
    await Promise.race([Promise.allSettled(this.beginning), patience]);
    clearTimeout(timer);
    for (const stop of this.stops.reverse()) await stop();
  }
}
