import { airFile, dynoFile, problemIn, type AirFile, type DynoFile } from '../../contract/files.ts';

/** What has been dropped so far; each new file takes the place of the last of its kind. */
export interface TakenFiles {
  csv?: { file: File; text: string };
  dyno?: { name: string; content: DynoFile };
  air?: { name: string; content: AirFile };
  /** Sentences about files that could not be used. */
  problems: string[];
}

/** Sorts dropped files by what they hold. */
export async function takeFiles(before: TakenFiles, files: readonly File[]): Promise<TakenFiles> {
  const taken: TakenFiles = { ...before, problems: [] };
  for (const file of files) {
    const text = await file.text();
    if (!/\.json$/i.test(file.name)) {
      taken.csv = { file, text };
      continue;
    }
    const content = parsed(text);
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

function parsed(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return undefined;
  }
}
