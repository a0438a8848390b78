import { existsSync } from 'node:fs';
import { aptInstall, mayInstall } from './apt.ts';
import { Failure } from './failure.ts';

/** Chromium without a window of its own: a sixth less work for the same tests. */
const withoutWindow = '/usr/bin/chromium-headless-shell';
const others = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/**
 * Finds a Chromium for the browser tests, or installs Debian's.
 * @throws Failure that says what to run
 */
export async function findChromium(say: (text: string) => void): Promise<string> {
  if (existsSync(withoutWindow)) return withoutWindow;
  const other = others.find((path) => existsSync(path));
  const command = 'sudo apt-get install chromium-headless-shell';
  if (!mayInstall()) {
    if (other) return other;
    throw new Failure(`The browser tests need Chromium. Install it with: ${command}`);
  }
  say('Installing Chromium (Debian package)');
  try {
    await aptInstall(['chromium-headless-shell'], `Chromium could not be installed. Try: ${command}`);
    return withoutWindow;
  } catch (error) {
    if (!other) throw error;
    say(`${(error as Failure).message} The tests go on with ${other}.`);
    return other;
  }
}
