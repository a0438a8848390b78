import { builtProgram } from '../../launch/programs.cjs';

// A thread reads no TypeScript: it runs what is built of it.
await import(await builtProgram('server/import/import-worker.ts'));
