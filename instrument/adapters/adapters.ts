import { Refusal } from '../../core/refusal.ts';
import type { AdaptedPlace } from './adapted-instrument.ts';
import type { Adapter } from './adapter.ts';
import { semicolonLines } from './semicolon-lines.ts';

/** Every adapter there is: a new one is written beside this file and added here. */
const adapters: readonly Adapter[] = [semicolonLines];

/**
 * Reads SUVOK_ADAPTERS: `name=host:port`, several with commas between.
 * @throws Refusal that names what is not understood
 */
export function adaptedPlaces(text: string): AdaptedPlace[] {
  return text
    .split(',')
    .map((entry) => entry.trim())
    .filter(Boolean)
    .map((entry) => {
      const found = /^([\w-]+)=(.+):(\d{1,5})$/.exec(entry);
      const [, name, host, port] = found ?? [];
      if (!name || !host || !port) throw new Refusal(`SUVOK_ADAPTERS: "${entry}" is not of the form name=host:port.`);
      const adapter = adapters.find((known) => known.name === name);
      if (!adapter)
        throw new Refusal(
          `SUVOK_ADAPTERS: there is no adapter "${name}"; there are ${adapters.map((known) => known.name).join(', ')}.`,
        );
      return {
        adapter,
        device: `${name}-${host}-${port}`.slice(0, 64),
        way: { by: 'tcp client', host, port: Number(port) },
      };
    });
}
