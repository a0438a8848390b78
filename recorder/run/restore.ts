import type { DeviceSettings } from '../../contract/instruments/recording.ts';
import type { Log } from '../../contract/values/service-log.ts';
import { Device } from '../devices/device.ts';
import type { LoggerTap } from './logger-tap.ts';
import type { Recorder } from './recorder.ts';
import type { Journal } from '../spool/journal.ts';
import { rowsFrom } from '../spool/kept-rows.ts';

/** Where no run was being recorded, this much of what an instrument said last is taken up, s of its clock. */
const lookBackS = 35;

/** The bay that instruments of an earlier life come back to. */
interface Home {
  /** @returns the recorder of a dyno */
  welcome(device: Device): Recorder | undefined;
  /** The loggers that stand beside a dyno. */
  loggers(device: Device): readonly LoggerTap[];
  settings(device: string): DeviceSettings | undefined;
}

/**
 * Takes up every session that the spool knows of and that was not over, with
 * its last rows, so that a run goes on as soon as its instrument speaks again.
 * An instrument that cannot send again what it read is lost at once.
 */
export async function restoreDevices(journal: Journal, home: Home, log: Log): Promise<void> {
  const open = journal.sessions.filter(({ closed }) => !closed);
  // Loggers first: the runs of a dyno look for them.
  const inOrder = [...open.filter(({ hello }) => !hello.dyno), ...open.filter(({ hello }) => hello.dyno)];
  const lost: Device[] = [];
  for (const kept of inOrder) {
    const device = Device.restored(kept, journal);
    const recorder = home.welcome(device);
    device.settings = home.settings(kept.hello.device) ?? device.settings;
    const run = journal.unstored.find(
      ({ ending, end, sources }) => !end && !ending && sources[0]?.session === kept.session,
    );
    const from = run ? Math.max(0, Math.min(run.sources[0]?.from ?? 0, kept.rows)) : kept.doneTo;
    const stretches = await rowsFrom(journal, kept, from, run ? Infinity : lookBackS, log);
    for (const { rows } of stretches) {
      for (const row of rows) {
        device.remember(row);
        if (!recorder) device.emit('row', row);
      }
    }
    recorder?.restore(stretches, run, home.loggers(device), kept.breaks);
    if (!device.resumes) {
      recorder?.endNow('The recorder stopped during this run.');
      lost.push(device);
    }
  }
  // Now that no run looks for them any more.
  for (const device of lost) device.lose();
}
