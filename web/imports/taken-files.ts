import { jsonIn } from '../../contract/values/text.ts';
import { airFile, dynoFile, problemIn, type AirFile, type DynoFile } from '../../contract/files/machine-and-air.ts';

/** What has been dropped so far; a new dyno or air takes the place of the last one. */
export interface TakenFiles {
  /** Recordings that came last, in their order. */
  recordings: File[];
  dyno?: { name: string; content: DynoFile };
  air?: { name: string; content: AirFile };
  /** Sentences about files that could not be used. */
  problems: string[];
}

/** Sorts dropped files by what they hold. */
export async function takeFiles(before: TakenFiles, files: readonly File[]): Promise<TakenFiles> {
  const taken: TakenFiles = { ...before, recordings: [], problems: [] };
  for (const file of files) {
    if (!/\.json$/i.test(file.name)) {
      taken.recordings.push(file);
      continue;
    }
    const content = jsonIn((await file.text()).replace(/^\uFEFF/, ''));
    const dyno = dynoFile.safeParse(content);
    const air = airFile.safeParse(content);
    if (dyno.success) taken.dyno = { name: file.name, content: dyno.data };
    else if (air.success) taken.air = { name: file.name, content: air.data };
    else {
      const nearer = content && typeof content === 'object' && 'temperatureC' in content ? air.error : dyno.error;
      taken.problems.push(
        `${file.name} is neither a dyno nor air: ${content === undefined ? 'it is not JSON' : problemIn(nearer)}.`,
      );
    }
  }
  return taken;
}
