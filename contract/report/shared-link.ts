import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { identifier, moment, trimmedText } from '../values/parts.ts';
import { papers, reportView } from './report.ts';

/** Days that a link may hold. */
const mostDays = 365;

/** What is shared, with whom and for how long. */
export const newSharedLink = z.strictObject({
  /** The kept report; null for the job's Compare as it stands whenever it is opened. */
  reportVersionId: identifier.nullable(),
  whom: trimmedText(80).default(''),
  days: z.int().min(1).max(mostDays),
  /** How Compare is shown. */
  view: reportView,
});

/** A link that holds, without the key that opens it. */
export const sharedLink = z.object({
  id: identifier,
  reportVersionId: identifier.nullable(),
  whom: z.string(),
  endsAt: moment,
  createdAt: moment,
  /** How often it was opened, and when last. */
  opened: z.int().nonnegative(),
  lastOpenedAt: moment.nullable(),
});
export type SharedLink = z.infer<typeof sharedLink>;

/** The key is told once: what is stored cannot be turned back into it. */
export const madeSharedLink = sharedLink.extend({ key: z.string() });

/** What a link opens: a report as it was kept, or the way to the page of a comparison. */
export const sharedContent = z.discriminatedUnion('is', [
  z.object({
    is: z.literal('report'),
    endsAt: moment,
    report: z.object({
      head: z.object({ about: z.string(), when: z.string() }),
      blocks: z.array(z.looseObject({ id: z.string() })),
    }),
  }),
  z.object({ is: z.literal('comparison'), endsAt: moment }),
]);

/** The address that a key makes, at an origin. */
export const sharedPath = (key: string) => `/shared/${key}`;

export const sharedLinkEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/jobs/:id/shared-links',
    does: 'Links of a job that hold: what each opens, for whom, until when, and how often it was opened.',
    answer: z.array(sharedLink),
  },
  {
    method: 'post',
    path: '/jobs/:id/shared-links',
    does: 'Makes a link by which somebody without an account reads one kept report, or the job’s Compare, and nothing else.',
    body: newSharedLink,
    answer: madeSharedLink,
  },
  { method: 'delete', path: '/shared-links/:id', does: 'Takes a link back at once; undone by its act.' },
  {
    method: 'get',
    path: '/shared/:key',
    needs: 'nobody',
    does: 'What a link opens, to whoever has its key.',
    answer: sharedContent,
  },
  {
    method: 'get',
    path: '/shared/:key/page',
    needs: 'nobody',
    does: 'The shared comparison as a page: lanes, crosshair, table and findings, without owner and plate.',
    binary: 'text/html',
  },
  {
    method: 'get',
    path: '/shared/:key/pdf',
    needs: 'nobody',
    does: `The shared report as a PDF; paper is ${papers.join(' or ')}.`,
    query: ['paper'],
    binary: 'application/pdf',
  },
  {
    method: 'get',
    path: '/shared/:key/photos/:id',
    needs: 'nobody',
    does: 'A photo that stands in the shared report.',
    binary: 'image/*',
  },
];
