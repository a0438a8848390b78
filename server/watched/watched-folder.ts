import { watch, type FSWatcher } from 'chokidar';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { constants, access, stat } from 'node:fs/promises';
import { basename, isAbsolute, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Log } from '../../contract/values/service-log.ts';
import type { WatchedFolder as WatchedFolderState } from '../../contract/shop/watched-folder.ts';
import { Refusal } from '../../core/refusal.ts';
import { HttpRefusal } from '../http-refusal.ts';
import {
  claimFile,
  forgetFile,
  forgetUnfinished,
  settleFile,
  watchPath,
  watchedFiles,
  watchedPath,
} from '../../store/runs/watched-files.ts';
import { takeFile, type TakeParts } from './take-file.ts';

/** A file is complete once its size has stayed the same for so long, ms. */
const completeMs = 2000;

/** What instruments of others drop into a folder of this machine, taken once each, one after another. */
export class WatchedFolder {
  private watcher: FSWatcher | undefined;
  private problem: string | null = null;
  private queue: Promise<void> = Promise.resolve();

  constructor(
    private readonly parts: TakeParts,
    private readonly log: Log,
    private readonly settledMs = completeMs,
  ) {}

  /** Goes on with the folder that was chosen; what was being read when the server ended is read again. */
  async start(): Promise<void> {
    await forgetUnfinished(this.parts.database);
    const path = await watchedPath(this.parts.database);
    if (path !== null) await this.follow(path);
  }

  async state(): Promise<WatchedFolderState> {
    const { database } = this.parts;
    return { path: await watchedPath(database), problem: this.problem, files: await watchedFiles(database) };
  }

  /** @throws Refusal where there is no such folder, or it cannot be read */
  async choose(path: string | null): Promise<void> {
    if (path !== null) await readable(path);
    await watchPath(this.parts.database, path);
    await this.stop();
    if (path !== null) await this.follow(path);
  }

  /** Takes a refused file again. @throws HttpRefusal where it is not among them */
  async again(id: number): Promise<void> {
    const path = await watchedPath(this.parts.database);
    const name = path === null ? undefined : await forgetFile(this.parts.database, id);
    if (path === null || name === undefined) throw new HttpRefusal(404, 'There is no such file to be taken again.');
    await this.enqueue(join(path, name));
  }

  async close(): Promise<void> {
    await this.stop();
    await this.queue;
  }

  private async stop(): Promise<void> {
    await this.watcher?.close();
    this.watcher = undefined;
    this.problem = null;
  }

  private async follow(path: string): Promise<void> {
    try {
      await readable(path);
    } catch (error) {
      this.problem = error instanceof Refusal ? error.message : String(error);
      return;
    }
    this.watcher = watch(path, {
      depth: 0,
      awaitWriteFinish: { stabilityThreshold: this.settledMs, pollInterval: Math.min(100, this.settledMs) },
      // What an editor or a copy in progress leaves lying about.
      ignored: (file) => file !== path && /^[.~]|\.(part|tmp|crdownload)$/i.test(basename(file)),
    });
    this.watcher.on('add', (file) => void this.enqueue(file));
    this.watcher.on('change', (file) => void this.enqueue(file));
    this.watcher.on('error', (error) => {
      this.problem = `The folder cannot be watched any more: ${error instanceof Error ? error.message : String(error)}.`;
    });
  }

  /** One after another: nothing else of the server waits for them. */
  private enqueue(path: string): Promise<void> {
    this.queue = this.queue
      .then(() => this.take(path))
      .catch((error: unknown) => this.log.error({ err: error, path }, 'a dropped file'));
    return this.queue;
  }

  private async take(path: string): Promise<void> {
    const { database } = this.parts;
    const about = await stat(path).catch(() => undefined);
    if (!about?.isFile() || about.size === 0) return;
    const id = await claimFile(database, {
      sha256: await hashOf(path),
      name: basename(path),
      bytes: about.size,
      modifiedAt: about.mtime,
    });
    if (id === undefined) return;
    try {
      const { outcome, runIds, words } = await takeFile(path, this.parts);
      await settleFile(database, id, outcome, runIds, words);
    } catch (error) {
      const known = error instanceof Refusal || error instanceof HttpRefusal;
      if (!known) this.log.error({ err: error, path }, 'a dropped file could not be read');
      await settleFile(
        database,
        id,
        'refused',
        [],
        known ? error.message : 'Suvok itself made a mistake with it; please report this.',
      );
    }
  }
}

async function readable(path: string): Promise<void> {
  if (!isAbsolute(path)) throw new Refusal('Give the whole path of the folder, from the root on.');
  const about = await stat(path).catch(() => undefined);
  if (!about?.isDirectory()) throw new Refusal(`${path} is no folder on the machine that Suvok runs on.`);
  await access(path, constants.R_OK | constants.X_OK).catch(() => {
    throw new Refusal(`${path} may not be read by Suvok: let it read the folder.`);
  });
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}
