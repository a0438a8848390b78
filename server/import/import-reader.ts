import type { Worker } from 'node:worker_threads';
import { startThread } from '../own-thread.ts';
import { Refusal } from '../../core/refusal.ts';
import type { ImportAnswer, ImportAsked } from './import-worker.ts';
import type { ImportedAs, ReadImport } from './read-import.ts';

/** Cells are rubbish as soon as they are read: cleared away often, they need little room, MB. */
const resourceLimits = { maxYoungGenerationSizeMb: 16, maxOldGenerationSizeMb: 1024 };

interface Open {
  resolve: (read: ReadImport) => void;
  reject: (error: Error) => void;
  onProgress: (read: number) => void;
}

/** Reads files in a thread of its own: a large one takes seconds, and a run may be recorded meanwhile. */
export class ImportReader {
  private worker: Worker | undefined;
  private asked = 0;
  private readonly open = new Map<number, Open>();

  /**
   * @param path of a file that stays until this settles
   * @param onProgress is told how much of it has been read, 0 to 1
   * @param signal ends the reading: it is refused then
   * @throws Refusal with what is wrong with the file
   */
  async read(
    path: string,
    as: ImportedAs,
    { onProgress = () => undefined, signal }: { onProgress?: (read: number) => void; signal?: AbortSignal } = {},
  ): Promise<ReadImport> {
    const worker = (this.worker ??= this.started());
    const ask = ++this.asked;
    const answer = new Promise<ReadImport>((resolve, reject) => this.open.set(ask, { resolve, reject, onProgress }));
    worker.postMessage({ ask, path, as } satisfies ImportAsked);
    const cancel = () => worker.postMessage({ cancel: ask } satisfies ImportAsked);
    if (signal?.aborted) cancel();
    signal?.addEventListener('abort', cancel, { once: true });
    return answer.finally(() => signal?.removeEventListener('abort', cancel));
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private started(): Worker {
    const worker = startThread('server/import/import-worker.ts', resourceLimits);
    // An idle reader keeps no process alive.
    worker.unref();
    worker.on('message', (answer: ImportAnswer) => {
      const open = this.open.get(answer.ask);
      if (!open) return;
      if ('progress' in answer) return open.onProgress(answer.progress);
      this.open.delete(answer.ask);
      if ('read' in answer) open.resolve(answer.read);
      else open.reject('refusal' in answer ? new Refusal(answer.refusal) : new Error(answer.failure));
    });
    worker.on('error', (error) => this.lost(worker, error));
    worker.on('exit', () => this.lost(worker, new Error('the reader of files ended before it had answered')));
    return worker;
  }

  /** A file that broke the reader fails by itself; the next one is read by a new reader. */
  private lost(worker: Worker, error: Error): void {
    if (this.worker !== worker) return;
    this.worker = undefined;
    for (const { reject } of this.open.values()) reject(error);
    this.open.clear();
  }
}
