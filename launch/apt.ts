import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { Failure } from './failure.ts';

/** True where this user may install Debian packages. */
export function mayInstall(): boolean {
  return process.getuid?.() === 0 && existsSync('/usr/bin/apt-get');
}

/**
 * Installs Debian packages, asking nothing.
 * @throws Failure with the sentence given and the last line of what apt said
 */
export async function aptInstall(packages: string[], sentence: string): Promise<void> {
  await apt(['update'], sentence);
  await apt(
    ['install', '-y', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', ...packages],
    sentence,
  );
}

async function apt(words: string[], sentence: string): Promise<void> {
  const child = spawn('apt-get', ['-q', ...words], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  let said = '';
  child.stdout.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-2000)));
  child.stderr.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-2000)));
  const code = await new Promise<number | null>((resolve) => {
    child.on('error', () => resolve(null));
    child.on('close', resolve);
  });
  if (code !== 0) throw new Failure(`${sentence} (apt-get said: ${said.trim().split('\n').at(-1) ?? 'nothing'})`);
}
