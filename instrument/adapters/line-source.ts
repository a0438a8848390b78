import { createSocket } from 'node:dgram';
import { lookup } from 'node:dns/promises';
import { connect, createServer, type Socket } from 'node:net';
import { longestLine } from '../../contract/instruments/bench-link.ts';
import type { LineWay } from '../../contract/instruments/plain-instrument.ts';
import { withoutUnseen } from '../../contract/values/text.ts';
import { LineReader } from '../../contract/values/line-reader.ts';
import type { Attempt, Opened } from './attempt.ts';
import { openSerial } from './serial-lines.ts';

/** After a loss, or a failure, the way is tried again after this time, ms. */
const retryMs = 2000;

/** What is told of lines as they come. */
export interface LineListener {
  /** Somebody is there, or has gone. */
  connected(there: boolean): void;
  /** Lines that came together. */
  lines(lines: readonly string[]): void;
  /** Why nothing comes, as a sentence. */
  problem(sentence: string): void;
}

/** A way that lines come, for as long as it is not closed: it is tried again whenever it is lost. */
export interface LineSource {
  close(): void;
  /** Lets go of who is there; another connection may follow. */
  drop(): void;
}

/** Whoever speaks to a web server is a browser that was led astray, and no instrument. */
const ofBrowser = /^(GET|POST|PUT|HEAD|OPTIONS|DELETE|PATCH|CONNECT|TRACE) \S+ HTTP\//;

/**
 * Opens a way and keeps it open.
 * @param greeting sent once somebody is there; empty for none
 */
export function openLines(way: LineWay, greeting: string, listener: LineListener): LineSource {
  let current: Opened | undefined;
  let again: NodeJS.Timeout | undefined;
  let closed = false;
  let there = false;
  const begin = () => {
    let gathered: string[] = [];
    let ended = false;
    const reader = new LineReader(
      longestLine,
      (line) => gathered.push(withoutUnseen(line.replaceAll('\0', '').trimEnd())),
      () => listener.problem(`A line longer than ${longestLine} characters was passed over.`),
    );
    const end = (why?: string) => {
      if (ended) return;
      ended = true;
      if (there) listener.connected((there = false));
      if (why) listener.problem(why);
      if (!closed) again = setTimeout(begin, retryMs).unref();
    };
    current = attempts[way.by](way as never, greeting, {
      opened: () => listener.connected((there = true)),
      text: (text) => {
        reader.push(text);
        if (gathered.length === 0) return;
        const lines = gathered;
        gathered = [];
        if (lines.some((line) => ofBrowser.test(line))) {
          listener.problem('A browser spoke on this port and was let go; nothing of it was taken.');
          return current?.close();
        }
        listener.lines(lines);
      },
      ended: end,
    });
  };
  begin();
  return {
    close() {
      closed = true;
      clearTimeout(again);
      current?.close();
    },
    drop: () => current?.close(),
  };
}

type Of<By extends LineWay['by']> = Extract<LineWay, { by: By }>;
const attempts: { [By in LineWay['by']]: (way: Of<By>, greeting: string, attempt: Attempt) => Opened } = {
  'tcp client': ({ host, port }, greeting, attempt) => {
    const socket = connect({ host, port });
    socket.once('connect', () => {
      if (greeting) socket.write(`${greeting}\r\n`);
      attempt.opened();
    });
    return spokenBy(socket, attempt, (error) => `${host}, port ${port}: ${reason(error)}.`);
  },
  'tcp server': ({ port, from }, greeting, attempt) => {
    let socket: Socket | undefined;
    const server = createServer((comes) => {
      void isFrom(comes.remoteAddress, from).then((welcome) => {
        if (!welcome || socket) return comes.destroy();
        socket = comes;
        if (greeting) comes.write(`${greeting}\r\n`);
        attempt.opened();
        // One that goes may come back on the same port.
        spokenBy(comes, { ...attempt, ended: () => (socket = undefined) }, () => '');
        comes.once('close', close);
      });
    });
    const close = () => {
      socket?.destroy();
      server.close();
      attempt.ended();
    };
    server.on('error', (error) => attempt.ended(`Port ${port} cannot be listened on: ${reason(error)}.`));
    server.listen(port, listeningOn(from));
    return { close };
  },
  udp: ({ port, from }, _greeting, attempt) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: false });
    let heard = false;
    let closed = false;
    const close = () => {
      if (!closed) socket.close(() => attempt.ended());
      closed = true;
    };
    socket.on('error', (error) => attempt.ended(`Port ${port} cannot be listened on: ${reason(error)}.`));
    socket.on('message', (bytes, { address }) => {
      void isFrom(address, from).then((welcome) => {
        if (!welcome) return;
        if (!heard) attempt.opened();
        heard = true;
        // A packet holds whole lines, its last one often without an end.
        const text = bytes.toString();
        attempt.text(text.endsWith('\n') ? text : `${text}\n`);
      });
    });
    socket.bind(port, listeningOn(from));
    return { close };
  },
  serial: openSerial,
};

function spokenBy(socket: Socket, attempt: Attempt, told: (error: Error) => string): Opened {
  let why: string | undefined;
  socket.setEncoding('utf8');
  socket.on('data', (text: string) => attempt.text(text));
  socket.on('error', (error) => (why = told(error)));
  socket.once('close', () => attempt.ended(why));
  return { close: () => socket.destroy() };
}

const loopback = (address: string) =>
  address === '::1' || address === 'localhost' || /^127(\.\d{1,3}){3}$/.test(address);

/** Only whoever must be reached from elsewhere is listened for beyond this machine. */
const listeningOn = (from: string) => (loopback(from) ? '127.0.0.1' : '0.0.0.0');

/** Whether an address is that of the machine that lines are taken from. */
async function isFrom(address: string | undefined, from: string): Promise<boolean> {
  const plain = address?.replace(/^::ffff:/, '');
  if (plain === undefined) return false;
  if (loopback(from)) return loopback(plain);
  if (plain === from) return true;
  const found = await lookup(from, { all: true }).catch(() => []);
  return found.some((one) => one.address === plain);
}

const reasons: Record<string, string> = {
  ECONNREFUSED: 'nobody listens there',
  ENOTFOUND: 'no machine of that name is known',
  EAI_AGAIN: 'no machine of that name is known',
  EHOSTUNREACH: 'that machine cannot be reached',
  ENETUNREACH: 'that machine cannot be reached',
  ETIMEDOUT: 'that machine does not answer',
  ECONNRESET: 'the connection was broken off',
  EADDRINUSE: 'another program has it',
  EACCES: 'it is not allowed',
};
const reason = (error: NodeJS.ErrnoException) => reasons[error.code ?? ''] ?? error.message;
