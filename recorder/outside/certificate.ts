import { X509Certificate, createPrivateKey } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { isIP } from 'node:net';
import { join } from 'node:path';
import { Refusal } from '../../core/refusal.ts';

/** A certificate made here lasts so long, and is made anew so long before its end, ms. */
const lastsMs = 825 * 864e5;
const renewMs = 30 * 864e5;

export interface Certificate {
  key: string;
  cert: string;
  /** SHA-256, as browsers show it. */
  fingerprint: string;
  /** Made here: browsers warn once, and whoever opens the page compares the fingerprint. */
  madeHere: boolean;
}

/**
 * The certificate that Suvok shows to others: the shop's own, or one that is made at the first start and kept.
 * @param hosts names and addresses that others reach this machine by
 * @param folder where a made one is kept, for its owner's eyes only
 * @throws Refusal where the shop's own cannot be used
 */
export async function certificateFor(
  hosts: readonly string[],
  folder: string,
  own?: { certFile: string; keyFile: string },
): Promise<Certificate> {
  if (own) return ownCertificate(own);
  const [certFile, keyFile] = [join(folder, 'certificate.pem'), join(folder, 'key.pem')];
  const kept = await read(certFile, keyFile).catch(() => undefined);
  if (kept && lasts(kept.cert) && hosts.every((host) => covers(kept.cert, host)))
    return { ...kept, fingerprint: printOf(kept.cert), madeHere: true };
  // Few make one, and it takes longer to load than all else here.
  const { generate } = await import('selfsigned');
  const made = await generate([{ name: 'commonName', value: hosts[0] ?? 'Suvok' }], {
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + lastsMs),
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: hosts.map((host) => (isIP(host) ? { type: 7, ip: host } : { type: 2, value: host })),
      },
    ],
  });
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await writeFile(keyFile, made.private, { mode: 0o600 });
  await writeFile(certFile, made.cert, { mode: 0o600 });
  return { key: made.private, cert: made.cert, fingerprint: printOf(made.cert), madeHere: true };
}

async function ownCertificate({ certFile, keyFile }: { certFile: string; keyFile: string }): Promise<Certificate> {
  const { cert, key } = await read(certFile, keyFile).catch((error: Error) => {
    throw new Refusal(`The certificate or its key cannot be read: ${error.message}.`);
  });
  try {
    const parsed = new X509Certificate(cert);
    if (!parsed.checkPrivateKey(createPrivateKey(key))) throw new Error('the key is of another certificate');
    if (new Date(parsed.validTo).getTime() < Date.now()) throw new Error(`it ended on ${parsed.validTo}`);
  } catch (error) {
    throw new Refusal(`The certificate of SUVOK_TLS_CERT cannot be used: ${(error as Error).message}.`);
  }
  return { cert, key, fingerprint: printOf(cert), madeHere: false };
}

async function read(certFile: string, keyFile: string): Promise<{ cert: string; key: string }> {
  const [cert, key] = await Promise.all([readFile(certFile, 'utf8'), readFile(keyFile, 'utf8')]);
  return { cert, key };
}

const printOf = (cert: string) => new X509Certificate(cert).fingerprint256;
const lasts = (cert: string) => new Date(new X509Certificate(cert).validTo).getTime() - Date.now() > renewMs;
function covers(cert: string, host: string): boolean {
  const parsed = new X509Certificate(cert);
  return (isIP(host) ? parsed.checkIP(host) : parsed.checkHost(host)) !== undefined;
}
