import { readdirSync, readFileSync } from 'node:fs';

/** Folders whose tests need nothing beside them. */
export const unitFolders = ['core/', 'contract/', 'cli/', 'instrument/', 'recorder/', 'simulator/', 'web/'];
/** Folders whose tests need a database. */
export const apiFolders = ['server/', 'store/', 'operations/', 'launch/'];

/** Files of Jest's tests under some folders, by their paths in the project. */
export const testFilesIn = (folders: readonly string[]): string[] =>
  folders.flatMap((path) =>
    readdirSync(path, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.test\.tsx?$/.test(name))
      .map((name) => path + name),
  );

/** Whether a file of tests wants another environment than Node's: it says so at its head. */
export const hasOwnEnvironment = (file: string): boolean =>
  readFileSync(file, 'utf8').slice(0, 200).includes('@jest-environment');
