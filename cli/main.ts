import { answered } from './command-line.ts';

const { code, out, error } = await answered(process.argv.slice(2));
process.stdout.write(out);
process.stderr.write(error);
process.exitCode = code;
