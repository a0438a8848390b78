import { join } from 'node:path';
import type { Log } from '../contract/values/service-log.ts';
import { openDatabase } from '../store/database/database.ts';
import { Bays } from './bays/bays.ts';
import { databaseStore } from './database/database-store.ts';
import type { Outside } from '../contract/people/people.ts';
import { BenchLink } from './devices/bench-link.ts';
import { Drainer } from './database/drainer.ts';
import { RecorderSocket } from './local-link/recorder-socket.ts';
import { claimRecorder, linesPlace, socketPlace } from './local-link/socket-place.ts';
import { tlsAt, type OutsidePlace } from './outside/outside-place.ts';
import { PairedInstruments } from './instruments/paired-instruments.ts';
import { RecorderMemory } from './memory/recorder-memory.ts';
import type { RecorderStore } from './database/recorder-store.ts';
import { RoomOnDisk } from './memory/room-on-disk.ts';
import { Journal } from './spool/journal.ts';
import { diskFiles, type SpoolFiles } from './spool/spool-files.ts';

export interface RecorderSettings {
  databaseUrl: string;
  /** A folder of the recorder's own: its spool, its memory and its local socket. */
  folder: string;
  /** 0 for any free port. */
  benchLinkPort: number;
  /** For instruments on other machines: over TLS, and only once they are paired. */
  outside?: OutsidePlace | undefined;
  /** With less free space than this no run begins, bytes. */
  floorBytes: number;
  log: Log;
  /** For tests: another folder for the spool, another store. */
  files?: SpoolFiles;
  store?: (recorder: string) => RecorderStore;
}

export interface RunningRecorder {
  benchLinkPort: number;
  /** How instruments on other machines reach it. */
  outside: Outside | null;
  bays: Bays;
  journal: Journal;
  close(): Promise<void>;
}

/** The database has this long to answer, ms: a recorder asks again rather than wait. */
const answerMs = 10_000;

/**
 * Starts a recorder: spool, instruments, bays, and the socket for servers. The
 * database may be away.
 * @throws with code EADDRINUSE when a port is taken, or another recorder has the folder; Refusal where the certificate cannot be used
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
  const paired = new PairedInstruments(memory);
  const link = new BenchLink(journal, paired);
  const room = new RoomOnDisk(
    settings.floorBytes,
    () => journal.freeBytes(),
    () => {
      if (room.atTheEnd) bays.endForWantOfRoom();
    },
  );
  const bays = new Bays({ store, memory, journal, drainer, link, paired, room, log });
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
    const outside = settings.outside ? await openOutside(link, settings.outside) : null;
    paired.opened(outside);
    await bays.plain.start(benchLinkPort, linesPlace(folder));
    return { benchLinkPort, outside, bays, journal, close };
  } catch (error) {
    await close();
    throw error;
  }
}

/** The bench link for instruments on other machines. */
async function openOutside(link: BenchLink, place: OutsidePlace): Promise<Outside> {
  const { options, reached } = await tlsAt(place);
  return reached(await link.listenOutside(place.port, options));
}
