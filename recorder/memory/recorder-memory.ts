import { randomUUID } from 'node:crypto';
import { open, readFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { mounting } from '../../contract/bays/bay-requests.ts';
import { bayNumber } from '../../contract/values/parts.ts';
import { carOnDyno } from '../../contract/bays/recorded-run.ts';
import { pairedInstrument } from '../../contract/people/pairing.ts';
import { deviceSettings, runPlan } from '../../contract/instruments/recording.ts';
import { jsonIn } from '../../contract/values/text.ts';

const rememberedBay = z.object({
  bay: bayNumber,
  name: z.string(),
  /** The dyno that stands in it, by its name on the bench link, whether it is there now or not. */
  dyno: z.string().nullable().default(null),
  mounted: z
    .object({ ...mounting.shape, ...carOnDyno.shape })
    .nullable()
    .default(null),
  plan: runPlan.nullable().default(null),
});
export type RememberedBay = z.infer<typeof rememberedBay>;

/** Where there is no bay yet. */
export const firstBay: RememberedBay = { bay: 1, name: 'Bay 1', dyno: null, mounted: null, plan: null };

const remembered = z.object({
  /** The recorder's own name in the database, for as long as its folder lasts. */
  recorder: z.uuid(),
  /** The database that cars, setups and ratios are numbered by; null until one was met. */
  database: z.uuid().nullable().default(null),
  /** False until the database has been asked once what it knows of the bays. */
  asked: z.boolean().default(false),
  /** By their numbers; never empty. */
  bays: z.array(rememberedBay).default([]),
  settings: z.record(z.string(), deviceSettings).default({}),
  /** Instruments on other machines, each with the SHA-256 of its key. */
  paired: z.array(z.object({ ...pairedInstrument.shape, keyHash: z.string() })).default([]),
});
export type Remembered = z.infer<typeof remembered>;

/** As it was written while there was one bay only. */
const ofOneBay = rememberedBay.pick({ mounted: true, plan: true });

/**
 * What the recorder must know with the database away: who it is, its bays,
 * what is on each dyno and comes next there, and what the shop has set of its
 * instruments.
 */
export class RecorderMemory {
  private writing: Promise<void> = Promise.resolve();

  private constructor(
    private readonly file: string,
    /** As it is now. */
    public now: Remembered,
  ) {}

  /** Reads what is remembered in a folder; one that holds nothing readable is begun anew, under a new name. */
  static async in(folder: string): Promise<RecorderMemory> {
    const file = join(folder, 'bay.json');
    const content = jsonIn(await readFile(file, 'utf8').catch(() => ''));
    const found = remembered.safeParse(content);
    if (found.success) {
      const { bays } = found.data;
      if (bays.length > 0) return new RecorderMemory(file, found.data);
      const before = ofOneBay.safeParse(content);
      return new RecorderMemory(file, { ...found.data, bays: [{ ...firstBay, ...(before.success && before.data) }] });
    }
    const memory = new RecorderMemory(file, remembered.parse({ recorder: randomUUID(), bays: [firstBay] }));
    await memory.keep({});
    return memory;
  }

  /** Changes what is remembered of one bay. */
  keepBay(number: number, change: Partial<Omit<RememberedBay, 'bay'>>): Promise<void> {
    return this.keep({ bays: this.now.bays.map((bay) => (bay.bay === number ? { ...bay, ...change } : bay)) });
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
