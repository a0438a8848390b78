import { join } from 'node:path';
import { z } from 'zod';
import { outside, type Outside } from '../contract/people/people.ts';
import type { ChildProcess } from 'node:child_process';
import { Failure } from './failure.ts';
import type { Kept } from './keep-running.ts';
import { startProgram, stopProgram } from './program.ts';
import { watchChild } from './watched-child.ts';

/** The recorder's own folder in a data folder. */
export const recorderFolder = (dataFolder: string): string => join(dataFolder, 'recorder');

export type StartedProgram<Ready> = Kept & Ready & { child: ChildProcess };

const serverReady = z.object({ ready: z.literal(true), port: z.number(), outside: outside.nullable() });
const linesReady = z.object({ ready: z.literal(true) });
const recorderReady = z.object({ ready: z.literal(true), benchLinkPort: z.number(), outside: outside.nullable() });

/** Starts the server and waits until it answers. @throws Failure with the server's own sentence */
export function startServerProgram(
  environment: NodeJS.ProcessEnv,
): Promise<StartedProgram<{ port: number; outside: Outside | null }>> {
  return startSpeaking('server', 'server/main.ts', environment, serverReady);
}

/** Starts the recorder and waits until it hears instruments. @throws Failure with the recorder's own sentence */
export function startRecorderProgram(
  environment: NodeJS.ProcessEnv,
): Promise<StartedProgram<{ benchLinkPort: number; outside: Outside | null }>> {
  return startSpeaking('recorder', 'recorder/main.ts', environment, recorderReady);
}

/** Starts what takes lines of instruments for the recorder of SUVOK_RECORDER. @throws Failure with its own sentence */
export function startLinesProgram(environment: NodeJS.ProcessEnv): Promise<StartedProgram<object>> {
  return startSpeaking('program that takes lines of instruments', 'instrument/main.ts', environment, linesReady);
}

const hung = (name: string) => process.stderr.write(`The ${name} hangs: it is ended and started again\n`);

/** Starts a program that says, as its first word, that it is ready. */
async function startSpeaking<Ready extends object>(
  name: string,
  script: string,
  environment: NodeJS.ProcessEnv,
  ready: z.ZodType<Ready>,
): Promise<StartedProgram<Ready>> {
  const child = startProgram(script, [], environment);
  let said = '';
  child.stderr?.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-4000)));
  return new Promise((resolve, reject) => {
    child.once('message', (message) => {
      const parsed = ready.safeParse(message);
      const ended = new Promise<void>((done) => child.once('close', () => done()));
      if (!parsed.success) return;
      // A recorder has no long work: one that does not answer hangs.
      watchChild(child, script !== 'recorder/main.ts', () => hung(name));
      resolve({ ...parsed.data, child, ended, stop: () => stopProgram(child) });
    });
    child.once('close', () => {
      const sentence = /suvok: (.*)/.exec(said)?.[1] ?? said.trim().split('\n').at(-1) ?? 'it gave no reason';
      reject(new Failure(`The ${name} did not start: ${sentence}`));
    });
  });
}

/** A whole Suvok as processes: for tests and measurements. */
export interface StartedSuvok {
  port: number;
  benchLinkPort: number;
  server: StartedProgram<{ port: number; outside: Outside | null }>;
  recorder: StartedProgram<{ benchLinkPort: number }>;
  stop(): Promise<void>;
}

/** Starts all of them. @param environment DATABASE_URL and SUVOK_RECORDER at least */
export async function startSuvok(environment: NodeJS.ProcessEnv): Promise<StartedSuvok> {
  // The server makes the schema; the recorder waits for it.
  const [recorder, server, lines] = await Promise.all([
    startRecorderProgram(environment),
    startServerProgram(environment),
    startLinesProgram(environment),
  ]);
  return {
    port: server.port,
    benchLinkPort: recorder.benchLinkPort,
    server,
    recorder,
    async stop() {
      await Promise.all([server.stop(), recorder.stop(), lines.stop()]);
    },
  };
}
