import { z } from 'zod';
import { identifier, moment, trimmedText } from '../values/parts.ts';

/** A file that was dropped into the watched folder, and what became of it. */
export const watchedFile = z.object({
  id: identifier,
  name: z.string(),
  bytes: z.number().nonnegative(),
  /** When the file was last written: its recording's time, where it holds none of its own. */
  modifiedAt: moment,
  takenAt: moment,
  /** Being read; made into a run; joined runs as a logger's file; refused, and kept where it is. */
  outcome: z.enum(['reading', 'run', 'log', 'refused']),
  /** Runs that it became or joined: where they stand, and their labels. */
  runs: z.array(z.object({ jobId: identifier, label: z.string() })),
  words: z.string(),
});
export type WatchedFile = z.output<typeof watchedFile>;

export const watchedFolder = z.object({
  /** Null while none is watched. */
  path: z.string().nullable(),
  /** Why it cannot be watched, as a sentence. */
  problem: z.string().nullable(),
  /** The latest first. */
  files: z.array(watchedFile),
});
export type WatchedFolder = z.output<typeof watchedFolder>;

/** Which folder of the machine that Suvok runs on is watched; null for none. */
export const watchedFolderChoice = z.object({ path: trimmedText(1000).min(1).nullable() });
