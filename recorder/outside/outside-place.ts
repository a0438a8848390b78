import { Refusal } from '../../core/refusal.ts';
import type { Outside } from '../../contract/people/people.ts';
import { certificateFor } from './certificate.ts';

/** This machine, as it calls itself. */
export const loopbackHosts = ['127.0.0.1', 'localhost', '::1', '[::1]'];

/** How others than this machine reach a program of Suvok's. */
export interface OutsidePlace {
  /** Names and addresses that they reach it by; it answers to no other. */
  hosts: readonly string[];
  /** 0 for any free port. */
  port: number;
  /** Where a certificate that is made is kept. */
  folder: string;
  own?: { certFile: string; keyFile: string } | undefined;
}

/** What TLS needs at such a place, nothing older than 1.2, and how others reach a port of it. @throws Refusal where the certificate cannot be used */
export async function tlsAt({ hosts, folder, own }: OutsidePlace) {
  const { key, cert, fingerprint, madeHere } = await certificateFor(hosts, folder, own);
  const reached = (port: number): Outside => ({ hosts: [...hosts], port, fingerprint, madeHere });
  return { options: { key, cert, minVersion: 'TLSv1.2' } as const, reached };
}

/**
 * Reads where others reach this machine: HOST, and the shop's own certificate where there is one.
 * @param port of the program that asks
 * @param folder where a certificate that is made is kept
 * @returns none where HOST names this machine alone
 * @throws Refusal where HOST or the certificate's two files cannot be meant
 */
export function outsidePlace(
  { HOST, SUVOK_TLS_CERT: certFile, SUVOK_TLS_KEY: keyFile }: NodeJS.ProcessEnv,
  port: number,
  folder: string,
): OutsidePlace | undefined {
  const hosts = hostsIn(HOST ?? '');
  if (hosts.length === 0) return undefined;
  if ((certFile === undefined) !== (keyFile === undefined))
    throw new Refusal('SUVOK_TLS_CERT and SUVOK_TLS_KEY go together: set both, or neither.');
  const own = certFile !== undefined && keyFile !== undefined ? { certFile, keyFile } : undefined;
  return { hosts, port, folder, own };
}

const host = /^([a-z0-9]([a-z0-9-]*[a-z0-9])?)(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$|^[0-9a-f:]+$/i;

/**
 * Reads HOST: the machine's names or addresses as others use them, with commas between.
 * @returns none where it names this machine alone
 * @throws Refusal where one is no name, or means every address
 */
export function hostsIn(text: string): string[] {
  const hosts = text
    .split(',')
    .map((one) => one.trim().toLowerCase())
    .filter(Boolean);
  for (const one of hosts) {
    if (one === '0.0.0.0' || one === '::')
      throw new Refusal(
        `HOST is ${one}, which is no name: write the name or address that others reach this machine by, such as 192.168.1.20.`,
      );
    if (!host.test(one)) throw new Refusal(`HOST: "${one}" is no name and no address.`);
  }
  return hosts.filter((one) => !loopbackHosts.includes(one));
}
