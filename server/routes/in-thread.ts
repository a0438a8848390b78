import type { Request, Response } from 'express';
import { ReportPlaces } from '../reports/report-places.ts';
import { ReportThread } from '../reports/report-thread.ts';
import { ToldAsItGoes } from './told-as-it-goes.ts';

const places = new ReportPlaces();

/** Does work in a thread that is at nothing else, and stops it where nobody waits any more. */
export async function inThread(
  request: Request,
  response: Response,
  work: (thread: ReportThread, told: ToldAsItGoes) => Promise<void>,
): Promise<void> {
  const told = new ToldAsItGoes(request, response);
  await places.use(told.signal, async () => {
    const thread = new ReportThread(told.signal);
    try {
      await work(thread, told);
    } finally {
      await thread.end();
    }
  });
}
