import { rm, stat } from 'node:fs/promises';
import type { z } from 'zod';
import { bundleWishes, type bundleMade } from '../../contract/job/bundle.ts';
import { remoteWishes } from '../../contract/report/report.ts';
import { fileNameOf } from '../../core/exchange/results/file-name.ts';
import { Refusal } from '../../core/refusal.ts';
import { inTransaction, type Database } from '../../store/database/database.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { addTunerPackage } from '../../store/reports/tuner-packages.ts';
import { BundleShelf } from '../bundles/bundle-shelf.ts';
import { takeInBundle } from '../bundles/take-in-bundle.ts';
import { writeBundle } from '../bundles/write-bundle.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { writePackage } from '../remote/write-package.ts';
import { bodyAs, found, idOf, marksPerson } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';
import { takesAway } from './takes-away.ts';
import { ToldAsItGoes } from './told-as-it-goes.ts';
import { upload } from './upload.ts';

/** A job of sixty runs of a minute at 1 kHz is some 300 MB. */
const mostMegabytes = 4000;

/** Jobs as one file each: out of this Suvok, and in from another. */
export function bundleRoutes(routes: ContractRoutes, database: Database, dynos: DynoHistory): void {
  const shelf = new BundleShelf();

  routes.post('/jobs/:id/bundle', async (request, response) => {
    const wishes = bodyAs(request, bundleWishes);
    const job = found(await jobWithAll(database, idOf(request)), 'job');
    const strange = wishes.setupIds?.find((id) => !job.setups.some((setup) => setup.id === id));
    if (strange !== undefined) throw new HttpRefusal(404, `This job has no setup of number ${strange}.`);
    const told = new ToldAsItGoes(request, response);
    await shelved(shelf, told, `${job.vehicle} job ${job.id}`, (path) =>
      writeBundle({ database, dynos }, job, wishes, path, (done) => told.tell({ doing: 'writing', done }), told.signal),
    );
  });

  routes.post('/jobs/:id/remote-package', async (request, response) => {
    const wishes = bodyAs(request, remoteWishes);
    const job = found(await jobWithAll(database, idOf(request)), 'job');
    await inThread(request, response, async (thread, told) => {
      await shelved(shelf, told, `${job.vehicle} job ${job.id} for the tuner`, async (path) => {
        const { sent } = await writePackage({ database, dynos }, job, wishes, path, thread, told);
        await inTransaction(database, async (client) => {
          await marksPerson(response)(client);
          await addTunerPackage(client, job.id, sent.at(-1)?.setupId ?? null, sent.length);
        });
      });
    });
  });

  takesAway(routes, database, '/tuner-packages/:id', 'tuner_package', 'package');

  routes.get('/bundles/:ticket', (request, response, next) => {
    const ticket = String(request.params.ticket);
    const { path, name } = found(
      shelf.find(ticket),
      'bundle; one that was written is kept for ten minutes and fetched once. Write it again',
    );
    response.download(path, name, (error) => {
      void shelf.drop(ticket);
      if (error && !response.headersSent) next(error);
    });
  });

  routes.post('/bundles', upload(mostMegabytes, 0, 'disk'), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpRefusal(400, 'No file came with the request.');
    try {
      const told = new ToldAsItGoes(request, response);
      const storing = (done: number) => told.tell({ doing: 'storing', done });
      const taken = await takeInBundle(database, file.path, storing, told.signal, marksPerson(response));
      told.end(taken.already ? 200 : 201, taken);
    } finally {
      await rm(file.path, { force: true });
    }
  });
}

/** Has a file written and answers with the ticket that it is fetched with; what was not finished is thrown away. */
async function shelved(
  shelf: BundleShelf,
  told: ToldAsItGoes,
  about: string,
  write: (path: string) => Promise<void>,
): Promise<void> {
  const path = await shelf.place();
  try {
    await write(path);
  } catch (error) {
    await rm(path, { force: true });
    throw told.signal.aborted ? new Refusal('It was cancelled. Nothing was written.') : error;
  }
  const name = `${fileNameOf(about)}.zip`;
  const made: z.infer<typeof bundleMade> = { name, bytes: (await stat(path)).size, fetch: shelf.keep(path, name) };
  told.end(201, made);
}
