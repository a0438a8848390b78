import { register } from 'tsx/esm/api';

// A thread takes no loader over from the process: it registers its own before it reads TypeScript.
register();
await import('./report-worker.ts');
