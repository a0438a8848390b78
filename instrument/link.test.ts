import { afterEach, expect, test } from '@jest/globals';
import { createServer, type Server, type Socket } from 'node:net';
import { Link } from './link.ts';

let server: Server | undefined;
let link: Link | undefined;
const sockets: Socket[] = [];
afterEach(() => {
  link?.close();
  for (const socket of sockets) socket.destroy();
  server?.close();
});

/** A Suvok that only listens: each connection with the first line that came over it. */
async function listener(): Promise<{ port: number; next: () => Promise<{ socket: Socket; hello: string }> }> {
  const came: { socket: Socket; hello: string }[] = [];
  const waiting: ((one: { socket: Socket; hello: string }) => void)[] = [];
  // Half open: what it has still to say is said after the other side has ended.
  server = createServer({ allowHalfOpen: true }, (socket) => {
    sockets.push(socket.on('error', () => undefined));
    socket.setEncoding('utf8').once('data', (text: string) => {
      const one = { socket, hello: text };
      const first = waiting.shift();
      if (first) first(one);
      else came.push(one);
    });
  });
  await new Promise<void>((resolve) => server?.listen(0, '127.0.0.1', resolve));
  const next = () =>
    new Promise<{ socket: Socket; hello: string }>((resolve) => {
      const one = came.shift();
      if (one) resolve(one);
      else waiting.push(resolve);
    });
  return { port: (server.address() as { port: number }).port, next };
}

const hello = (unit: string) => ({
  type: 'hello' as const,
  device: 'logger',
  kind: 'engine-logger' as const,
  channels: [{ name: 'lambda', unit }],
  commands: [],
  faults: [],
});
const settled = async (promise: Promise<unknown>, withinMs: number) =>
  Promise.race([
    promise.then(() => true),
    new Promise<boolean>((resolve) => setTimeout(() => resolve(false), withinMs)),
  ]);

test('a welcome that still comes over the connection of before is none of the next one', async () => {
  const { port, next } = await listener();
  link = new Link('127.0.0.1', port, hello('1'), () => undefined);
  const first = await next();
  // Another car: it comes back with other channels before it was welcomed.
  link.introduce(hello('λ'));
  first.socket.write('{"type":"welcome","from":0}\n');
  expect(await settled(link.connected, 150)).toBe(false);
  first.socket.end();
  const second = await next();
  expect(second.hello).toContain('λ');
  second.socket.write('{"type":"welcome","from":0}\n');
  expect(await settled(link.connected, 2000)).toBe(true);
});
