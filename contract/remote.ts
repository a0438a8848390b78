import { z } from 'zod';
import { identifier } from './parts.ts';
import { reportView } from './report.ts';

/** What a remote tuner is sent: these runs, with what the job's report says of them. */
export const remoteWishes = reportView.extend({ runIds: z.array(identifier).min(1).max(60) });
