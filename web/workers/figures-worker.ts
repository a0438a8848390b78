import { wrap, type Remote } from 'comlink';
import type { FiguresWorker } from './figures.worker.ts';

let remote: Remote<FiguresWorker> | undefined;

/** The worker that makes all figures; started at the first use. */
export function figuresWorker(): Remote<FiguresWorker> {
  remote ??= wrap<FiguresWorker>(new Worker(new URL('./figures.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}
