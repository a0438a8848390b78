import { readFileSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';

/** How often a part is asked whether it lives, ms. */
const askEveryMs = 1000;
/** After so many questions without an answer it counts as hung … */
const mostMissed = 10;
/** … or after so many, where it may be busy and its processor time goes on. */
const mostMissedBusy = 60;
/** A question counts only where the asker's own timer kept time: a machine that stood still proves nothing, ms. */
const mostLateMs = 500;

/** What is asked, and what is answered: a number that comes back. */
export interface Question {
  alive: number;
}
const isQuestion = (message: unknown): message is Question =>
  typeof message === 'object' && message !== null && typeof (message as Partial<Question>).alive === 'number';

/** Counts questions without an answer. */
export class Missed {
  private missed = 0;
  private asked = 0;
  private answered = 0;
  private askedMs = -Infinity;
  private processor: number | undefined;
  private busy = false;

  /** @param mayBeBusy whether long work may keep it from answering for a while */
  constructor(private readonly mayBeBusy: boolean) {}

  /**
   * Time for another question.
   * @param nowMs of a clock that nobody sets
   * @param processor time that it has had so far, in any unit; undefined where that cannot be told
   * @returns its number; 'hung' where it is not to be waited for any longer
   */
  next(nowMs: number, processor: number | undefined): number | 'hung' {
    const onTime = nowMs - this.askedMs < askEveryMs + mostLateMs;
    if (this.answered === this.asked) [this.missed, this.busy] = [0, false];
    else if (onTime) this.missed++;
    if (this.missed > 0) this.busy ||= processor !== undefined && processor > (this.processor ?? Infinity);
    // Processor time is held against what it was when the last answer came.
    if (this.missed === 0) this.processor = processor;
    this.askedMs = nowMs;
    if (this.missed >= (this.mayBeBusy && this.busy ? mostMissedBusy : mostMissed)) return 'hung';
    return ++this.asked;
  }

  answer(number: number): void {
    this.answered = Math.max(this.answered, number);
  }
}

/** Processor time that a process has had, in ticks; undefined where the system does not tell. */
function processorTime(pid: number): number | undefined {
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
    return Number(fields[11]) + Number(fields[12]);
  } catch {
    return undefined;
  }
}

/**
 * Asks a part of Suvok every second whether it lives, and ends it where it hangs; whoever keeps it running starts it
 * again once it is gone.
 * @param hung told before it is ended
 */
export function watchChild(child: ChildProcess, mayBeBusy: boolean, hung: () => void): void {
  const missed = new Missed(mayBeBusy);
  const timer = setInterval(() => {
    if (!child.connected || child.pid === undefined) return;
    const next = missed.next(performance.now(), processorTime(child.pid));
    if (next === 'hung') {
      clearInterval(timer);
      hung();
      child.kill('SIGKILL');
    } else child.send({ alive: next } satisfies Question, () => undefined);
  }, askEveryMs);
  timer.unref();
  child.on('message', (message) => {
    if (isQuestion(message)) missed.answer(message.alive);
  });
  child.once('close', () => clearInterval(timer));
}
