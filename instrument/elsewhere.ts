import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { connect, type TLSSocket } from 'node:tls';
import { z } from 'zod';
import { jsonIn } from '../contract/values/text.ts';

const keptKeys = z.record(z.string(), z.string());

/** Suvok on another machine: what it is known by, and the keys that these instruments were given there. */
export class Elsewhere {
  private keys: Record<string, string>;
  /** Who says the code: the first that has no key. It says it so often at most, for the connection may be bad. */
  private teller: string | undefined;
  private tries = 3;

  /**
   * @param fingerprint SHA-256 of its certificate, as Devices shows it
   * @param file the keys by the instruments' names, for its owner's eyes only
   * @param code that lets one instrument in which has no key yet
   */
  constructor(
    readonly fingerprint: string,
    private readonly file: string,
    private readonly code: string | undefined,
  ) {
    this.keys = existsSync(file) ? keptKeys.parse(jsonIn(readFileSync(file, 'utf8'))) : {};
  }

  /** What an instrument says to be let in: its key, or the code, which serves one of them. Neither: it waits. */
  letIn(device: string): { key?: string | undefined; code?: string | undefined } {
    if (Object.hasOwn(this.keys, device)) return { key: this.keys[device] };
    this.teller ??= device;
    return this.teller === device && this.tries-- > 0 ? { code: this.code } : {};
  }

  keep(device: string, key: string): void {
    this.keys = { ...this.keys, [device]: key };
    writeFileSync(this.file, JSON.stringify(this.keys), { mode: 0o600 });
  }
}

/** A connection that ends at once where the certificate is another one: nothing was said by then. */
export function secureConnection(at: { host: string; port: number }, fingerprint: string): TLSSocket {
  // The fingerprint is what is trusted, not who signed it.
  const socket = connect({ ...at, rejectUnauthorized: false });
  socket.prependListener('secureConnect', () => {
    if (socket.getPeerCertificate().fingerprint256 !== fingerprint.toUpperCase())
      socket.destroy(new Error('another certificate'));
  });
  return socket;
}
