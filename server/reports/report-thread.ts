import { Worker } from 'node:worker_threads';
import { Refusal } from '../../core/refusal.ts';
import type { ReportAnswer, ReportAsked } from './report-worker.ts';

/** A report's thread may hold the readings of a large job. */
const resourceLimits = { maxOldGenerationSizeMb: 1500 };

/** A thread in which one report is made: one question after the other. It ends when nobody waits for it any more. */
export class ReportThread {
  private readonly worker = new Worker(new URL('./start-worker.mjs', import.meta.url), {
    execArgv: [],
    resourceLimits,
  });

  /** @param signal ends it, whatever it is at */
  constructor(private readonly signal: AbortSignal) {}

  /** @throws Refusal with what is wrong, or that it was cancelled */
  ask<Key extends 'read' | 'made' | 'pdf'>(
    key: Key,
    asked: ReportAsked,
    handedOver: ArrayBuffer[] = [],
  ): Promise<Extract<ReportAnswer, Record<Key, unknown>>> {
    const { worker, signal } = this;
    return new Promise((resolve, reject) => {
      const settled = new AbortController();
      const refuse = (reason: Error) => {
        settled.abort();
        reject(reason);
      };
      const heard = (answer: ReportAnswer) => {
        if ('refusal' in answer) return refuse(new Refusal(answer.refusal));
        if ('failure' in answer) return refuse(new Error(answer.failure));
        if (!(key in answer)) return refuse(new Error(`the thread answered ${Object.keys(answer).join()} to ${key}`));
        settled.abort();
        resolve(answer as Extract<ReportAnswer, Record<Key, unknown>>);
      };
      const died = () => refuse(new Error('the thread ended before it had answered'));
      const cancelled = () => refuse(new Refusal('It was cancelled. Nothing was stored.'));
      if (signal.aborted) return cancelled();
      signal.addEventListener('abort', cancelled, { signal: settled.signal });
      worker.on('message', heard).on('error', refuse).on('exit', died);
      settled.signal.addEventListener('abort', () => worker.off('message', heard).off('error', refuse).off('exit', died)); // prettier-ignore
      worker.postMessage(asked, handedOver);
    });
  }

  async end(): Promise<void> {
    await this.worker.terminate();
  }
}
