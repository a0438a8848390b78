import type { RequestHandler } from 'express';

/** What a stopping server has still in hand. */
export class RequestsAtWork {
  private readonly working = new Set<Promise<unknown>>();

  /** The same handler, known to be at work until it has ended, whether its client still listens or not. */
  known(handler: RequestHandler): RequestHandler {
    return (request, response, next) => {
      const work: unknown = handler(request, response, next);
      if (!(work instanceof Promise)) return;
      const ended: Promise<unknown> = work.catch(() => undefined).then(() => this.working.delete(ended));
      this.working.add(ended);
      // Express answers where it fails.
      return work;
    };
  }

  /** Settles when nothing is at work, or after a while. @returns whether all of it has ended */
  async ended(patienceMs: number): Promise<boolean> {
    let timer: NodeJS.Timeout | undefined;
    const patience = new Promise<void>((resolve) => (timer = setTimeout(resolve, patienceMs)));
    await Promise.race([Promise.all(this.working), patience]);
    clearTimeout(timer);
    return this.working.size === 0;
  }
}
