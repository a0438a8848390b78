import type { Worker } from 'node:worker_threads';
import { Refusal } from '../../core/refusal.ts';
import { startThread } from '../own-thread.ts';
import type { ReportAnswer, ReportAsked } from './report-worker.ts';

/** A report's thread may hold the readings of a large job. */
const resourceLimits = { maxOldGenerationSizeMb: 1500 };

/** A thread that nobody uses is kept so long: to load what writes pages takes longer than the pages of a short report. */
const keptForMs = 120_000;

/** Threads that are loaded and wait for the next report, and what is done with each where it ends meanwhile. */
const spare = new Map<Worker, () => void>();

function takeWorker(): Worker {
  const [first] = spare;
  if (!first) return startThread('server/reports/report-worker.ts', resourceLimits);
  const [kept, given] = first;
  spare.delete(kept);
  kept.off('exit', given).off('error', given);
  kept.ref();
  return kept;
}

function keepWorker(worker: Worker): void {
  worker.postMessage({ forget: true } satisfies ReportAsked);
  const given = () => void spare.delete(worker);
  spare.set(worker, given);
  worker.once('exit', given).once('error', given);
  // It holds up no process that wants to end.
  worker.unref();
  setTimeout(() => {
    if (spare.get(worker) !== given) return;
    given();
    void worker.terminate();
  }, keptForMs).unref();
}

/** A thread in which one report is made: one question after the other. It ends when somebody goes away before it has answered. */
export class ReportThread {
  private readonly worker = takeWorker();
  private waitsFor = 0;
  private gone = false;

  /** @param signal ends it, whatever it is at */
  constructor(private readonly signal: AbortSignal) {}

  /** @throws Refusal with what is wrong, or that it was cancelled */
  ask<Key extends 'read' | 'made' | 'pdf' | 'fuelling' | 'tests' | 'headline'>(
    key: Key,
    asked: ReportAsked,
    handedOver: ArrayBuffer[] = [],
  ): Promise<Extract<ReportAnswer, Record<Key, unknown>>> {
    const { worker, signal } = this;
    return new Promise((resolve, reject) => {
      const settled = new AbortController();
      this.waitsFor++;
      settled.signal.addEventListener('abort', () => this.waitsFor--);
      const refuse = (reason: Error) => {
        settled.abort();
        reject(reason);
      };
      const lost = (reason: Error) => {
        this.gone = true;
        refuse(reason);
      };
      const heard = (answer: ReportAnswer) => {
        if ('refusal' in answer) return refuse(new Refusal(answer.refusal));
        if ('failure' in answer) return refuse(new Error(answer.failure));
        if (!(key in answer)) return refuse(new Error(`the thread answered ${Object.keys(answer).join()} to ${key}`));
        settled.abort();
        resolve(answer as Extract<ReportAnswer, Record<Key, unknown>>);
      };
      const died = () => lost(new Error('the thread ended before it had answered'));
      // What it was asked it is still at.
      const cancelled = () => lost(new Refusal('It was cancelled. Nothing was stored.'));
      if (signal.aborted) return cancelled();
      signal.addEventListener('abort', cancelled, { signal: settled.signal });
      worker.on('message', heard).on('error', lost).on('exit', died);
      settled.signal.addEventListener('abort', () => worker.off('message', heard).off('error', lost).off('exit', died));
      worker.postMessage(asked, handedOver);
    });
  }

  /** Ends it, or keeps it for the next report where it has answered all that it was asked. */
  async end(): Promise<void> {
    if (this.gone || this.waitsFor > 0) await this.worker.terminate();
    else keepWorker(this.worker);
  }
}
