import { existsSync } from 'node:fs';
import { aptInstall, mayInstall } from './apt.ts';
import { Failure } from './failure.ts';

const places = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/**
 * Finds a Chromium for the browser tests, or installs Debian's.
 * @throws Failure that says what to run
 */
export async function findChromium(say: (text: string) => void): Promise<string> {
  const found = places.find((path) => existsSync(path));
  if (found) return found;
  const command = 'sudo apt-get install chromium';
  if (!mayInstall()) throw new Failure(`The browser tests need Chromium. Install it with: ${command}`);
  say('Installing Chromium (Debian package)');
  await aptInstall(['chromium'], `Chromium could not be installed. Try: ${command}`);
  return places[0]!;
}
