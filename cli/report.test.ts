import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { reportCommand } from './report.ts';

/** What a server was asked, and answers as Suvok does: job 12 is there, 99 is not, 5 is refused once the work has begun. */
const asked: { path: string; body: unknown }[] = [];
let server: Server;
let address: string;
const file = join(mkdtempSync(join(tmpdir(), 'suvok-report-')), 'report.pdf');

beforeAll(async () => {
  server = createServer((request, response) => {
    let body = '';
    request.on('data', (piece: Buffer) => (body += piece.toString()));
    request.on('end', () => {
      asked.push({ path: request.url ?? '', body: JSON.parse(body) });
      const job = /\/jobs\/(\d+)\//.exec(request.url ?? '')?.[1];
      if (job === '99') return response.writeHead(404).end(JSON.stringify({ error: 'There is no such job.' }));
      if (job === '7') return response.end('<html>hello</html>');
      const lines = [
        { doing: 'reading', done: 0 },
        job === '5'
          ? { status: 422, error: 'There is nothing to report yet.' }
          : { answer: { name: 'a.pdf', pages: 2, base64: Buffer.from('%PDF').toString('base64') } },
      ];
      response.end(lines.map((line) => `${JSON.stringify(line)}\n`).join(''));
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.close();
});

const words = (job: string, more: string[] = []) => [job, '--pdf', file, '--server', address, ...more];

test('suvok report writes the PDF that the server makes, in the units and on the paper that are asked for', async () => {
  expect(await reportCommand(words('12', ['--units', 'us', '--paper', 'letter']))).toEqual({ file, pages: 2 });
  expect(readFileSync(file, 'utf8')).toBe('%PDF');
  expect(asked.at(-1)).toMatchObject({
    path: '/api/jobs/12/report/pdf',
    body: { paper: 'LETTER', standard: 'sae-j1349', units: { power: 'hp' } },
  });
});

test('what stands in the way is a sentence, the server’s own among them', async () => {
  await expect(reportCommand(words('99'))).rejects.toThrow('There is no such job.');
  await expect(reportCommand(words('5'))).rejects.toThrow('There is nothing to report yet.');
  await expect(reportCommand(words('7'))).rejects.toThrow(/is no Suvok of this kind/);
  await expect(reportCommand(['12', '--pdf', file, '--server', 'http://127.0.0.1:9'])).rejects.toThrow(
    /No Suvok answers at/,
  );
  await expect(reportCommand(words('12', ['--paper', 'A9']))).rejects.toThrow(/There is no paper "A9"/);
  await expect(reportCommand(words('12', ['--units', 'furlongs']))).rejects.toThrow(/There are no units "furlongs"/);
  await expect(reportCommand(words('one'))).rejects.toThrow(/Say the number of one job/);
  await expect(reportCommand(['12', '--server', address])).rejects.toThrow(/Say where the PDF goes/);
  await expect(reportCommand(['12', '--pdf', '/nowhere/at/all.pdf', '--server', address])).rejects.toThrow(
    /could not be written/,
  );
});
