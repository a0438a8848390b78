import type { ReportedJob } from './reported-job.ts';

/** What the car is called as it leaves: nobody may have said yet that it does so. */
export const laterName = ({ deliveredSetupId }: Pick<ReportedJob, 'deliveredSetupId'>): string =>
  deliveredSetupId === null ? 'last setup' : 'delivered';
