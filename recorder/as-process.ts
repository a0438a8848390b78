import pino, { type Logger } from 'pino';
import { Refusal } from '../core/refusal.ts';
import { rotatedLog } from './rotated-log.ts';

/** What recorder and server do alike as processes of their own: give up in a sentence, log, say that they are ready, end in order. */

/** After a failure that nobody thought of, what is at hand has so long to end, ms. */
const lastMomentMs = 5000;

export function giveUp(sentence: string): never {
  process.stderr.write(`suvok: ${sentence}\n`);
  process.exit(1);
}

/** What a setting of the environment means; one that cannot be meant ends the start with its sentence. */
export function orGiveUp<T>(setting: () => T): T {
  try {
    return setting();
  } catch (error) {
    if (error instanceof Refusal) giveUp(error.message);
    throw error;
  }
}

/** @param file for its owner's eyes only; standard error where there is none */
export const logInto = (file: string | undefined): Logger => pino(file ? rotatedLog(file) : pino.destination(2));

/**
 * Says that the process is ready, and ends it in order when it is asked to or its starter has gone.
 * @param ready what whoever started it must know
 */
export function liveAsProcess(ready: object, close: () => Promise<void>, log: Logger): void {
  const word = { ready: true, ...ready };
  if (process.connected) process.send?.(word);
  if (!process.send) process.stdout.write(`${JSON.stringify(word)}\n`);

  // A promise that nobody waited for has failed: one request's, one page's or one instrument's trouble, never the end of a recording.
  process.on('unhandledRejection', (reason) => log.error({ err: reason }, 'something failed that nobody waited for'));

  // Whoever started this process asks whether it lives: an answer says that it still turns to what comes.
  process.on('message', (question) => {
    if (process.connected) process.send?.(question);
  });

  let closing = false;
  const end = async (code = 0) => {
    if (closing) return;
    closing = true;
    await close();
    process.exit(code);
  };
  // Nobody knows what state it has left behind: what is at hand ends, and whoever started this process begins it anew.
  process.on('uncaughtException', (error) => {
    log.fatal({ err: error }, 'something failed that nobody thought of; this process ends and is begun anew');
    setTimeout(() => process.exit(1), lastMomentMs).unref();
    void end(1).catch(() => process.exit(1));
  });
  process.on('SIGTERM', () => void end());
  process.on('SIGINT', () => void end());
  // The starter has gone: nobody is left to stop this process. It may have gone before this was listened for.
  process.on('disconnect', () => void end());
  if (process.send && !process.connected) void end();
}
