import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A bundle that nobody has fetched is thrown away then. */
const keptForMs = 600_000;

interface Kept {
  path: string;
  name: string;
}

/** Bundles that were written and wait to be fetched: once, and not for long. */
export class BundleShelf {
  private readonly kept = new Map<string, Kept>();
  private folder: Promise<string> | undefined;

  /** A place for a file that is about to be written. */
  async place(): Promise<string> {
    this.folder ??= mkdtemp(join(tmpdir(), `suvok-bundles-${process.pid}-`));
    return join(await this.folder, randomUUID());
  }

  /** @returns the ticket that it is fetched with */
  keep(path: string, name: string): string {
    const ticket = randomUUID();
    this.kept.set(ticket, { path, name });
    setTimeout(() => void this.drop(ticket), keptForMs).unref();
    return ticket;
  }

  find(ticket: string): Kept | undefined {
    return this.kept.get(ticket);
  }

  async drop(ticket: string): Promise<void> {
    const one = this.kept.get(ticket);
    this.kept.delete(ticket);
    if (one) await rm(one.path, { force: true });
  }
}
