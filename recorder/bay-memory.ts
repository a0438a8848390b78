import { randomUUID } from 'node:crypto';
import { open, readFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { mounting } from '../contract/http.ts';
import { carOnDyno } from '../contract/recorded-run.ts';
import { deviceSettings, runPlan } from '../contract/recording.ts';

const remembered = z.object({
  /** The recorder's own name in the database, for as long as its folder lasts. */
  recorder: z.uuid(),
  /** False until the database has been asked once what it knows of the bay. */
  asked: z.boolean().default(false),
  mounted: z
    .object({ ...mounting.shape, ...carOnDyno.shape })
    .nullable()
    .default(null),
  plan: runPlan.nullable().default(null),
  settings: z.record(z.string(), deviceSettings).default({}),
});
export type Remembered = z.infer<typeof remembered>;

/**
 * What the recorder must know with the database away: who it is, what is on
 * the dyno, what comes next, and what the shop has set of its instruments.
 */
export class BayMemory {
  private writing: Promise<void> = Promise.resolve();

  private constructor(
    private readonly file: string,
    /** As it is now. */
    public now: Remembered,
  ) {}

  /** Reads what is remembered in a folder; one that holds nothing readable is begun anew, under a new name. */
  static async in(folder: string): Promise<BayMemory> {
    const file = join(folder, 'bay.json');
    const text = await readFile(file, 'utf8').catch(() => '');
    const found = remembered.safeParse(parsed(text));
    if (found.success) return new BayMemory(file, found.data);
    const memory = new BayMemory(file, remembered.parse({ recorder: randomUUID() }));
    await memory.keep({});
    return memory;
  }

  /** Changes it, on the disk when this settles: the file is the old one or the new one, whatever happens meanwhile. */
  keep(change: Partial<Omit<Remembered, 'recorder'>>): Promise<void> {
    this.now = { ...this.now, ...change };
    const text = JSON.stringify(this.now);
    const written = this.writing.then(async () => {
      const handle = await open(`${this.file}.new`, 'w', 0o600);
      try {
        await handle.writeFile(text);
        await handle.sync();
      } finally {
        await handle.close();
      }
      await rename(`${this.file}.new`, this.file);
    });
    this.writing = written.catch(() => undefined);
    return written;
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
