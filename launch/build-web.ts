import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const project = resolve(import.meta.dirname, '..');
export const webFolder = join(project, 'dist', 'web');
const stamp = join(project, 'dist', 'built-from');

/** Builds the page unless what it is made from has not changed. @returns whether it was built */
export async function buildWeb(say: (text: string) => void): Promise<boolean> {
  const made = sourceHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === made && existsSync(join(webFolder, 'index.html')))
    return false;
  say('Building the page');
  const { build } = await import('vite');
  await asForUse(() =>
    build({ root: join(project, 'web'), configFile: join(project, 'vite.config.ts'), logLevel: 'error' }),
  );
  writeFileSync(stamp, made);
  return true;
}

/** Whoever builds it, tests among them: the page is the one that people use, not the slower one for its makers. */
async function asForUse(work: () => Promise<unknown>): Promise<void> {
  const { NODE_ENV: before } = process.env;
  process.env.NODE_ENV = 'production';
  try {
    await work();
  } finally {
    if (before === undefined) delete process.env.NODE_ENV;
    else process.env.NODE_ENV = before;
  }
}

function sourceHash(): string {
  const hash = createHash('sha256');
  for (const folder of ['web', 'core', 'contract']) {
    const files = readdirSync(join(project, folder), { recursive: true, withFileTypes: true }).filter((entry) =>
      entry.isFile(),
    );
    for (const path of files.map((file) => join(file.parentPath, file.name)).sort()) {
      hash.update(path.slice(project.length)).update(readFileSync(path));
    }
  }
  return hash
    .update(readFileSync(join(project, 'package-lock.json')))
    .update(readFileSync(join(project, 'vite.config.ts')))
    .digest('hex');
}
