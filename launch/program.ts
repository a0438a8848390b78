import { spawn, type ChildProcess } from 'node:child_process';
import { resolve } from 'node:path';

const project = resolve(import.meta.dirname, '..');

/**
 * Starts one of the project's programs as a process of its own, with a
 * channel to it. In a session of its own, so that Ctrl-C reaches only the
 * starter; it ends by itself when the starter is gone.
 */
export function startProgram(script: string, words: string[], environment: NodeJS.ProcessEnv): ChildProcess {
  return spawn(process.execPath, [resolve(project, 'launch/run.cjs'), script, ...words], {
    cwd: project,
    env: { ...process.env, NODE_OPTIONS: '', ...environment },
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    detached: true,
  });
}

/** Asks a process to end, and insists after a while. */
export async function stopProgram(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
  child.kill('SIGTERM');
  const insist = setTimeout(() => child.kill('SIGKILL'), 8000);
  await ended;
  clearTimeout(insist);
}
