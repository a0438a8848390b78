import { wrap, type Remote } from 'comlink';
import type { FiguresWorker } from './figures.worker.ts';

let remote: Remote<FiguresWorker> | undefined;

/**
 * The worker that makes all figures; started at the first use.
 * @param firstJob whose runs it makes ready by itself as soon as it is there: a
 *   message would reach it only once the page's own code has been evaluated
 */
export function figuresWorker(firstJob?: string): Remote<FiguresWorker> {
  remote ??= wrap<FiguresWorker>(
    new Worker(new URL('./figures.worker.ts', import.meta.url), { type: 'module', name: firstJob ?? '' }),
  );
  return remote;
}
