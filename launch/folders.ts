import { existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * Makes a folder and what is missing above it, one by one: Node's own
 * recursive way never returns where the system refuses, as below /proc.
 * @throws what the system says
 */
export function makeFolders(folder: string, mode?: number): void {
  if (existsSync(folder)) return;
  makeFolders(dirname(folder));
  mkdirSync(folder, { mode });
}
