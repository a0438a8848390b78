import type { Worker } from 'node:worker_threads';
import type { Recording } from '../../core/recording/recording.ts';
import { startThread } from '../own-thread.ts';
import type { CsvAnswer, CsvAsked } from './csv-worker.ts';

/** Small, so that it is tidied often: it holds one recording and a piece of its text. */
const resourceLimits = { maxOldGenerationSizeMb: 64, maxYoungGenerationSizeMb: 8 };

/** Writes recordings as CSV in a thread of its own, one after the other. */
export class CsvThread {
  private worker: Worker | undefined;

  /** A recording's text, piece by piece: the next one is made when it is asked for. */
  async *pieces(recording: Recording): AsyncGenerator<Buffer> {
    for (let asked: CsvAsked = { recording }; ; asked = { next: true }) {
      const { piece } = await this.ask(asked);
      if (!piece) return;
      yield Buffer.from(piece.buffer, piece.byteOffset, piece.byteLength);
    }
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
    this.worker = undefined;
  }

  private ask(asked: CsvAsked): Promise<CsvAnswer> {
    const worker = (this.worker ??= startThread('server/bundles/csv-worker.ts', resourceLimits));
    return new Promise((resolve, reject) => {
      const answered = (answer: CsvAnswer) => settle(() => resolve(answer));
      const failed = (error: Error) => settle(() => reject(error));
      const ended = () => failed(new Error('the thread that writes recordings ended before it had answered'));
      const settle = (then: () => void) => {
        worker.off('message', answered).off('error', failed).off('exit', ended);
        then();
      };
      worker.on('message', answered).on('error', failed).on('exit', ended);
      worker.postMessage(asked);
    });
  }
}
