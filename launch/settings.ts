import { connect } from 'node:net';
import { Failure } from './failure.ts';

/** A port out of the environment. @throws Failure when it is none */
export function portFrom(name: 'PORT' | 'BENCH_LINK_PORT' | 'TLS_PORT' | 'BENCH_LINK_TLS_PORT', usual: number): number {
  const text = process.env[name];
  if (text === undefined || text === '') return usual;
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Failure(`${name} must be a port from 0 to 65535, not "${text}".`);
  return port;
}

/**
 * When the demo days end: now, or a moment in SUVOK_DEMO_ENDS, so that tests and pictures are the same every day.
 * @throws Failure when it is no moment
 */
export function demoEnd(): Date {
  const text = process.env.SUVOK_DEMO_ENDS;
  if (!text) return new Date();
  const moment = new Date(text);
  if (Number.isNaN(moment.getTime()))
    throw new Failure(`SUVOK_DEMO_ENDS must be a moment such as 2026-05-21T16:30, not "${text}".`);
  return moment;
}

/** What is shown to somebody who only looks: all demo days, the last one alone, or nothing at all in a shop that works. */
const demoKinds = ['days', 'today', 'off'] as const;
export type DemoKind = (typeof demoKinds)[number];

/** Which demo days SUVOK_DEMO wants. @throws Failure when it is none of them */
export function wantedDemo(): DemoKind {
  const text = process.env.SUVOK_DEMO || 'days';
  const kind = demoKinds.find((known) => known === text);
  if (!kind) throw new Failure(`SUVOK_DEMO must be one of ${demoKinds.join(', ')}, not "${text}".`);
  return kind;
}

/** @throws Failure when something on this machine already listens there */
export async function mustBeFree(port: number, name: string): Promise<void> {
  if (port === 0) return;
  const taken = await new Promise<boolean>((resolve) => {
    const probe = connect({ port, host: '127.0.0.1' });
    probe.once('connect', () => resolve(true));
    probe.once('error', () => resolve(false));
    probe.once('close', () => probe.destroy());
    probe.setTimeout(1000, () => resolve(false));
  });
  if (taken)
    throw new Failure(`Port ${port} is taken by another program. Choose another: ${name}=${port + 10} npm start`);
}
