import { spawn } from 'node:child_process';
import { resolve } from 'node:path';

/** What one part of `npm test` found. */
export interface Outcome {
  passed: number;
  failed: number;
}

const project = resolve(import.meta.dirname, '..');

/**
 * Runs a tool of node_modules to its end.
 * @returns its exit code and everything it printed
 */
export async function runTool(
  [tool, ...words]: readonly [tool: string, ...words: string[]],
  environment: NodeJS.ProcessEnv = {},
  folder = project,
): Promise<{ code: number | null; out: string }> {
  const child = spawn(process.execPath, [resolve(project, 'node_modules', tool), ...words], {
    cwd: folder,
    env: { ...process.env, ...environment },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let out = '';
  child.stdout.on('data', (text: Buffer) => (out += text.toString()));
  child.stderr.on('data', (text: Buffer) => (out += text.toString()));
  const code = await new Promise<number | null>((done) => child.once('close', done));
  return { code, out };
}

/** Runs a tool that either passes or fails as a whole, printing what it said only when it failed. */
export async function runWhole(name: string, words: readonly [tool: string, ...words: string[]]): Promise<Outcome> {
  const { code, out } = await runTool(words);
  process.stdout.write(`${name}: ${code === 0 ? 'ok' : `failed\n${out}`}\n`);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}
