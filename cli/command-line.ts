import { Refusal } from '../core/refusal.ts';
import { airCommand, airUsage } from './air.ts';
import { exportCommand, exportUsage, importCommand, importUsage } from './bundles.ts';
import { coastDownCommand, coastDownUsage } from './coast-down.ts';
import { compareCommand, compareUsage } from './compare.ts';
import { judgeCommand, judgeUsage } from './judge.ts';
import { reduceCommand, reduceUsage } from './reduce.ts';
import { reportCommand, reportUsage } from './report.ts';
import { stepsCommand, stepsUsage } from './steps.ts';

interface Command {
  usage: string;
  run: (words: readonly string[]) => unknown;
}

const commands: Record<string, Command> = {
  reduce: { usage: reduceUsage, run: reduceCommand },
  compare: { usage: compareUsage, run: compareCommand },
  judge: { usage: judgeUsage, run: judgeCommand },
  steps: { usage: stepsUsage, run: stepsCommand },
  coastdown: { usage: coastDownUsage, run: coastDownCommand },
  air: { usage: airUsage, run: airCommand },
  report: { usage: reportUsage, run: reportCommand },
  export: { usage: exportUsage, run: exportCommand },
  import: { usage: importUsage, run: importCommand },
};

const files = `Every command prints one JSON object on standard output; bad input is one line on standard error, exit code 2.
backup, verify and restore (docs/operations.md) look after the data as a whole, account after who may sign in.
Recordings are CSV with headings such as "rollerSpeed [rad/s]"; docs/file-formats.md has the forms of all files.`;

function help(command: string | undefined): string {
  const shown = command ? [commands[command]!] : Object.values(commands);
  return `${shown.map(({ usage }) => usage).join('\n\n')}\n\n${files}`;
}

/** Runs one command line. @returns what to print on standard output */
async function run(words: string[]): Promise<string> {
  const [name, ...rest] = words;
  if (name === undefined)
    throw new Refusal(`Say what to do: ${Object.keys(commands).join(', ')}. suvok --help tells more.`);
  if (name === '--help' || name === 'help') return help(rest.find((word) => Object.hasOwn(commands, word)));
  if (!Object.hasOwn(commands, name)) {
    throw new Refusal(
      `There is no command "${name}"; known are ${Object.keys(commands).join(', ')}. suvok --help tells more.`,
    );
  }
  if (rest.includes('--help')) return help(name);
  return JSON.stringify(await commands[name]!.run(rest));
}

/** What a command line comes to: one text on standard output, or one line on standard error. */
export interface Answered {
  code: 0 | 1 | 2;
  out: string;
  error: string;
}

/** Answers one command line; never throws. @param words those after the program's name */
export async function answered(words: string[]): Promise<Answered> {
  try {
    return { code: 0, out: (await run(words)) + '\n', error: '' };
  } catch (error) {
    // A Refusal is a sentence; anything else is a fault of ours.
    const isRefusal = error instanceof Refusal;
    const text = isRefusal ? error.message : `Internal error: ${(error as Error).message}`;
    return { code: isRefusal ? 2 : 1, out: '', error: `suvok: ${text.replace(/\s*\n\s*/g, ' ')}\n` };
  }
}
