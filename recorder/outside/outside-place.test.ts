import { describe, expect, test } from '@jest/globals';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { certificateFor } from './certificate.ts';
import { hostsIn, outsidePlace } from './outside-place.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'suvok-tls-'));

describe('HOST', () => {
  test('names this machine as others know it; loopback alone is nothing', () => {
    expect(hostsIn('Suvok.shop, 192.168.1.20, localhost')).toEqual(['suvok.shop', '192.168.1.20']);
    expect(hostsIn('127.0.0.1')).toEqual([]);
    expect(hostsIn('')).toEqual([]);
  });

  test.each([
    ['0.0.0.0', /no name: write the name or address/],
    ['::', /HOST is ::, which is no name: write the name or address/],
    ['suvok.shop, 0.0.0.0', /HOST is 0\.0\.0\.0/],
    ['a b', /"a b" is no name and no address/],
    ['http://x', /is no name and no address/],
  ])('%s is refused', (text, sentence) => {
    expect(() => hostsIn(text)).toThrow(sentence);
  });

  test('goes with both files of a certificate, or with none', () => {
    const both = { HOST: 'suvok.shop', SUVOK_TLS_CERT: 'a.pem', SUVOK_TLS_KEY: 'b.pem' };
    expect(outsidePlace(both, 5444, 'tls')).toMatchObject({ own: { certFile: 'a.pem', keyFile: 'b.pem' } });
    expect(outsidePlace({ HOST: 'suvok.shop' }, 5444, 'tls')?.own).toBeUndefined();
    expect(outsidePlace({ ...both, HOST: '' }, 5444, 'tls')).toBeUndefined();
    expect(() => outsidePlace({ ...both, SUVOK_TLS_KEY: undefined }, 5444, 'tls')).toThrow(/go together/);
  });
});

describe('the certificate', () => {
  test('is made once, for the names given, and kept for its owner alone; another name makes another', async () => {
    const place = join(folder(), 'tls');
    const first = await certificateFor(['suvok.shop', '192.168.1.20'], place);
    const parsed = new X509Certificate(first.cert);
    expect(parsed.checkHost('suvok.shop')).toBe('suvok.shop');
    expect(parsed.checkIP('192.168.1.20')).toBe('192.168.1.20');
    expect(first).toMatchObject({ madeHere: true, fingerprint: parsed.fingerprint256 });
    expect((await certificateFor(['suvok.shop'], place)).fingerprint).toBe(first.fingerprint);
    expect(statSync(join(place, 'key.pem')).mode & 0o777).toBe(0o600);
    expect((await certificateFor(['other.shop'], place)).fingerprint).not.toBe(first.fingerprint);
  });

  test('may be the shop’s own; one that cannot be used is refused with the reason', async () => {
    const [one, other] = [folder(), folder()];
    await certificateFor(['suvok.shop'], one);
    await certificateFor(['suvok.shop'], other);
    const own = { certFile: join(one, 'certificate.pem'), keyFile: join(one, 'key.pem') };
    expect(await certificateFor(['suvok.shop'], folder(), own)).toMatchObject({
      madeHere: false,
      cert: readFileSync(own.certFile, 'utf8'),
    });
    await expect(certificateFor([], '', { ...own, keyFile: join(other, 'key.pem') })).rejects.toThrow(
      /key is of another certificate/,
    );
    await expect(certificateFor([], '', { ...own, keyFile: '/nowhere' })).rejects.toThrow(/cannot be read/);
    const rubbish = join(folder(), 'x.pem');
    writeFileSync(rubbish, 'x');
    await expect(certificateFor([], '', { ...own, certFile: rubbish })).rejects.toThrow(/cannot be used/);
  });
});
