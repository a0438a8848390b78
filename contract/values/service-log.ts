/**
 * What is written down of how the program runs, in the form of pino's logger:
 * fields first, then what happened in a few words. Ids, counts and times, and
 * never what people wrote.
 */
export interface Log {
  info(fields: object, what: string): void;
  warn(fields: object, what: string): void;
  error(fields: object, what: string): void;
}

/** A log that nobody reads. */
export const silentLog: Log = { info: () => undefined, warn: () => undefined, error: () => undefined };
