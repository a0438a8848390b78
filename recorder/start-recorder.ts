import { join } from 'node:path';
import type { Log } from '../contract/log.ts';
import { openDatabase } from '../store/database.ts';
import { Bays } from './bays.ts';
import { databaseStore } from './database-store.ts';
import { BenchLink } from './devices/bench-link.ts';
import { Drainer } from './drainer.ts';
import { RecorderSocket } from './local-link/recorder-socket.ts';
import { claimRecorder, socketPlace } from './local-link/socket-place.ts';
import { RecorderMemory } from './recorder-memory.ts';
import type { RecorderStore } from './recorder-store.ts';
import { RoomOnDisk } from './room-on-disk.ts';
import { Journal } from './spool/journal.ts';
import { diskFiles, type SpoolFiles } from './spool/spool-files.ts';

export interface RecorderSettings {
  databaseUrl: string;
  /** A folder of the recorder's own: its spool, its memory and its local socket. */
  folder: string;
  /** 0 for any free port. */
  benchLinkPort: number;
  /** With less free space than this no run begins, bytes. */
  floorBytes: number;
  log: Log;
  /** For tests: another folder for the spool, another store. */
  files?: SpoolFiles;
  store?: (recorder: string) => RecorderStore;
}

export interface RunningRecorder {
  benchLinkPort: number;
  bays: Bays;
  journal: Journal;
  close(): Promise<void>;
}

/** The database has this long to answer, ms: a recorder asks again rather than wait. */
const answerMs = 10_000;

/**
 * Starts a recorder: spool, instruments, bays, and the socket for servers. The
 * database may be away.
 * @throws with code EADDRINUSE when the port is taken, or another recorder has the folder
 */
export async function startRecorder(settings: RecorderSettings): Promise<RunningRecorder> {
  const { folder, log } = settings;
  const files = settings.files ?? (await diskFiles(join(folder, 'spool')));
  const release = await claimRecorder(folder);
  const memory = await RecorderMemory.in(folder);
  const database = openDatabase(settings.databaseUrl, log, { connections: 4, answerMs });
  const store = settings.store?.(memory.now.recorder) ?? databaseStore(database, memory.now.recorder);
  const journal = await Journal.open(files, log);
  const drainer = new Drainer(journal, store, log);
  const link = new BenchLink(journal);
  const room = new RoomOnDisk(
    settings.floorBytes,
    () => journal.freeBytes(),
    () => {
      if (room.atTheEnd) bays.endForWantOfRoom();
    },
  );
  const bays = new Bays({ store, memory, journal, drainer, link, room, log });
  await room.look();
  await bays.restore();
  const socket = new RecorderSocket(bays, log);
  const end = async () => {
    room.stop();
    await link.close();
    await socket.close();
    await bays.settled();
    await journal.flush();
    await drainer.stop();
    await journal.close();
    await release();
    await database.end();
  };
  let ending: Promise<void> | undefined;
  const close = () => (ending ??= end());
  try {
    await socket.listen(socketPlace(folder));
    const benchLinkPort = await link.listen(settings.benchLinkPort);
    bays.plain.start(benchLinkPort);
    return { benchLinkPort, bays, journal, close };
  } catch (error) {
    await close();
    throw error;
  }
}
