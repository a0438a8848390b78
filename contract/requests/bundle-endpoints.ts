import * as bundle from '../job/bundle.ts';
import type { Endpoint } from '../values/endpoint.ts';

export const bundleEndpoints: readonly Endpoint[] = [
  {
    method: 'post',
    path: '/jobs/:id/bundle',
    needs: 'viewer',
    does: 'Writes a job, or a part of it, as one file that another Suvok takes in. In lines (application/x-ndjson) it is told as it goes. The file is fetched with the ticket, once.',
    body: bundle.bundleWishes,
    answer: bundle.bundleMade,
  },
  {
    method: 'get',
    path: '/bundles/:ticket',
    needs: 'viewer',
    does: 'A bundle that was written; it can be fetched once, within ten minutes.',
    binary: 'application/zip',
  },
  {
    method: 'post',
    path: '/bundles',
    does: 'Takes a job in from a bundle: all of it, or nothing. One that is here already is left as it is. In lines it is told as it goes.',
    form: ['file'],
    answer: bundle.bundleTaken,
  },
];
