import { builtProgram } from '../launch/programs.cjs';

// A thread reads no TypeScript: it runs what is built of the script that it is given.
await import(await builtProgram(process.argv[2]));
