import type { Express } from 'express';
import { createServer, type Server } from 'node:https';
import { Refusal } from '../../core/refusal.ts';
import { loopbackHosts } from '../loopback.ts';
import { certificateFor, type Certificate } from './certificate.ts';

/** How others than this machine reach Suvok. */
export interface OutsideSettings {
  /** Names and addresses that they reach it by; it answers to no other. */
  hosts: readonly string[];
  /** 0 for any free port. */
  port: number;
  /** Where a certificate that is made is kept. */
  folder: string;
  own?: { certFile: string; keyFile: string } | undefined;
}

const host = /^([a-z0-9]([a-z0-9-]*[a-z0-9])?)(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$|^[0-9a-f:]+$/i;

/**
 * Reads HOST: the machine's names or addresses as others use them, with commas between.
 * @returns none where it names this machine alone
 * @throws Refusal where one is no name, or means every address
 */
export function hostsIn(text: string): string[] {
  const hosts = text.split(',').map((one) => one.trim().toLowerCase()).filter(Boolean); // prettier-ignore
  for (const one of hosts) {
    if (one === '0.0.0.0' || one === '::') throw new Refusal(`HOST is ${one}, which is no name: write the name or address that others reach this machine by, such as 192.168.1.20.`); // prettier-ignore
    if (!host.test(one)) throw new Refusal(`HOST: "${one}" is no name and no address.`);
  }
  return hosts.filter((one) => !loopbackHosts.includes(one));
}

/** An HTTPS server for others, not listening yet. Nothing older than TLS 1.2. @throws Refusal where the certificate cannot be used */
export async function outsideServer(
  app: Express,
  settings: OutsideSettings,
): Promise<{ https: Server; certificate: Certificate }> {
  const certificate = await certificateFor(settings.hosts, settings.folder, settings.own);
  const https = createServer({ key: certificate.key, cert: certificate.cert, minVersion: 'TLSv1.2' }, app);
  return { https, certificate };
}
