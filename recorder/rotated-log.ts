import { renameSync, rmSync, statSync } from 'node:fs';
import pino from 'pino';

/** A log is put aside when it is so large, bytes, and so many of those are kept. */
const largest = 20 * 2 ** 20;
const kept = 5;
/** How often its size is looked at, ms. */
const everyMs = 10 * 60_000;

/** Puts a log aside where it has grown too large: `x.log` becomes `x.log.1`, that `x.log.2`, and the oldest goes. @returns whether it was */
export function putAside(file: string, most = largest): boolean {
  const size = statSync(file, { throwIfNoEntry: false })?.size ?? 0;
  if (size < most) return false;
  rmSync(`${file}.${kept}`, { force: true });
  for (let at = kept - 1; at >= 1; at--)
    if (statSync(`${file}.${at}`, { throwIfNoEntry: false })) renameSync(`${file}.${at}`, `${file}.${at + 1}`);
  renameSync(file, `${file}.1`);
  return true;
}

/** A log file for its owner's eyes only, which never grows without end. */
export function rotatedLog(file: string): pino.DestinationStream {
  putAside(file);
  const destination = pino.destination({ dest: file, mode: 0o600 });
  setInterval(() => putAside(file) && destination.reopen(), everyMs).unref();
  return destination;
}
