import type { LoggerBeside } from '../log/logged-pull.ts';
import type { Recording } from '../recording/recording.ts';
import { sourceKey } from './recording-bytes.ts';

/** What is needed of a run to find what was recorded of it. */
interface RecordedRun {
  id: number;
  logs: readonly { source: number; name: string; probe: LoggerBeside['probe'] }[];
}

/** The sources of a run, the dyno's own first, as `sourceKey` names them. */
export function sourcesOfRun({ id, logs }: RecordedRun): string[] {
  return [0, ...logs.map(({ source }) => source)].map((source) => sourceKey({ runId: id, source }));
}

/** What loggers recorded beside a run; undefined where any of it is not there. @param recordings by `sourceKey` */
export function besideRun(
  { id, logs }: RecordedRun,
  recordings: ReadonlyMap<string, Recording>,
): LoggerBeside[] | undefined {
  const found = logs.flatMap(({ source, name, probe }) => {
    const recording = recordings.get(sourceKey({ runId: id, source }));
    return recording ? [{ name, probe, recording }] : [];
  });
  return found.length === logs.length ? found : undefined;
}
