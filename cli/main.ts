import { parseArgs } from 'node:util';
import { Refusal } from '../core/refusal.ts';
import { reduceCommand } from './reduce.ts';

const usage = `Usage: suvok reduce RUN.csv --dyno DYNO.json [--air AIR.json] [--ratio N]
                    [--standard ID] [--smoothing RPM|auto|0] [--grid RPM]`;

/** Runs one command line. @returns what to print on standard output */
function run(words: string[]): string {
  const [command, ...rest] = words;
  if (command !== 'reduce') throw new Refusal(command ? `There is no command "${command}". ${usage}` : usage);
  const { values, positionals } = parseArgs({
    args: rest,
    allowPositionals: true,
    options: {
      dyno: { type: 'string' },
      air: { type: 'string' },
      ratio: { type: 'string' },
      standard: { type: 'string' },
      smoothing: { type: 'string' },
      grid: { type: 'string' },
    },
  });
  return JSON.stringify(reduceCommand(positionals, values));
}

try {
  process.stdout.write(run(process.argv.slice(2)) + '\n');
} catch (error) {
  // parseArgs speaks of its own errors by code; a Refusal is a sentence; anything else is a fault of ours.
  const own = error instanceof Refusal || String((error as { code?: string }).code).startsWith('ERR_PARSE_ARGS');
  const text = own ? (error as Error).message : `Internal error: ${(error as Error).message}`;
  process.stderr.write(`suvok: ${text.replace(/\s*\n\s*/g, ' ')}\n`);
  process.exitCode = own ? 2 : 1;
}
