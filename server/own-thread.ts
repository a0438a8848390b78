import { Worker, type ResourceLimits } from 'node:worker_threads';

/** Scripts that run as threads of the server; launch/programs.cjs builds them. */
type ThreadScript =
  | 'server/bundles/csv-worker.ts'
  | 'server/import/import-worker.ts'
  | 'server/reports/report-worker.ts';

/** Starts a thread of the server with room of its own. */
export function startThread(script: ThreadScript, resourceLimits: ResourceLimits): Worker {
  return new Worker(new URL('./start-worker.mjs', import.meta.url), { argv: [script], execArgv: [], resourceLimits });
}
