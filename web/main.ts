import { figuresWorker } from './workers/figures-worker.ts';

// Small, and first: the worker starts and makes the runs of the job in the
// address ready while the page's own code is on its way.
figuresWorker(/^\/jobs\/(\d+)\//.exec(location.pathname)?.[1]);

void import('./page.tsx');
