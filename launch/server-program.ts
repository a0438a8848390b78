import type { ChildProcess } from 'node:child_process';
import { z } from 'zod';
import { Failure } from './failure.ts';
import type { Kept } from './keep-running.ts';
import { startProgram, stopProgram } from './program.ts';

const readyMessage = z.object({
  ready: z.literal(true),
  port: z.number(),
  benchLinkPort: z.number(),
  interruptedRuns: z.array(z.string().nullable()),
});

export interface StartedServer extends z.infer<typeof readyMessage>, Kept {
  child: ChildProcess;
}

/**
 * Starts the server and waits until it answers.
 * @throws Failure with the server's own sentence
 */
export async function startServerProgram(environment: NodeJS.ProcessEnv): Promise<StartedServer> {
  const child = startProgram('server/main.ts', [], environment);
  let said = '';
  child.stderr?.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-4000)));
  return new Promise((resolve, reject) => {
    child.once('message', (message) => {
      const ready = readyMessage.safeParse(message);
      const ended = new Promise<void>((done) => child.once('close', () => done()));
      if (ready.success) resolve({ ...ready.data, child, ended, stop: () => stopProgram(child) });
    });
    child.once('close', () => {
      const sentence = /suvok: (.*)/.exec(said)?.[1] ?? said.trim().split('\n').at(-1) ?? 'it gave no reason';
      reject(new Failure(`The server did not start: ${sentence}`));
    });
  });
}
