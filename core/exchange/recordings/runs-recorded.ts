import type { LoggerBeside } from '../../log/view/logged-pull.ts';
import type { Recording } from '../../recording/recording.ts';
import { sourceKey, type SampleSource } from './recording-bytes.ts';

/** What is needed of a run to find what was recorded of it. */
interface RecordedRun {
  key: string;
  logs: readonly { source: number; name: string; probe: LoggerBeside['probe']; key?: string | undefined }[];
}

/** The sources of a run, the dyno's own first. */
export function sourcesOfRun({ key, logs }: RecordedRun): SampleSource[] {
  return [0, ...logs.map(({ source }) => source)].map((source) => ({ run: key, source }));
}

/**
 * The same as they are asked for: `sourceKey`, and of a file that was joined later the beginning of its own key, so
 * that what a browser keeps under an address is never another file's.
 */
export function addressesOfRun(run: RecordedRun): string[] {
  return [run.key, ...logAddresses(run)];
}

/** Those of the loggers alone. */
export function logAddresses({ key, logs }: RecordedRun): string[] {
  return logs.map((log) => sourceKey({ run: key, source: log.source }) + (log.key ? `-${log.key.slice(0, 8)}` : ''));
}

/** What loggers recorded beside a run; undefined where any of it is not there. @param recordings by `sourceKey` */
export function besideRun(
  { key, logs }: RecordedRun,
  recordings: ReadonlyMap<string, Recording>,
): LoggerBeside[] | undefined {
  const found = logs.flatMap(({ source, name, probe }) => {
    const recording = recordings.get(sourceKey({ run: key, source }));
    return recording ? [{ name, probe, recording }] : [];
  });
  return found.length === logs.length ? found : undefined;
}
