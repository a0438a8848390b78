import { Router } from 'express';
import { jobChange, newJob, newSetup, setupChange } from '../../contract/http.ts';
import type { Bay } from '../recorder/bay.ts';
import { inTransaction, type Database } from '../store/database.ts';
import { addJob, changeJob, jobSummaries, jobWithAll } from '../store/jobs.ts';
import { addSetup, rewordSetup } from '../store/setups.ts';
import { bodyAs, found, idOf } from './answer.ts';

/** Jobs and their setups. */
export function jobRoutes(database: Database, bay: Bay): Router {
  const router = Router();
  const whole = async (id: number) => found(await jobWithAll(database, id), 'job');

  router.get('/jobs', async (_request, response) => {
    response.json(await jobSummaries(database));
  });

  router.post('/jobs', async (request, response) => {
    const fields = bodyAs(request, newJob);
    const id = await inTransaction(database, (client) => addJob(client, fields));
    response.status(201).json(await whole(id));
  });

  router.get('/jobs/:id', async (request, response) => {
    response.json(await whole(idOf(request)));
  });

  router.patch('/jobs/:id', async (request, response) => {
    const id = idOf(request);
    found(await changeJob(database, id, bodyAs(request, jobChange)), 'job');
    await bay.refresh(id);
    response.json(await whole(id));
  });

  router.post('/jobs/:id/setups', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, newSetup);
    await whole(id);
    const setup = await inTransaction(database, (client) => addSetup(client, id, fields));
    response.status(201).json(setup);
  });

  router.patch('/setups/:id', async (request, response) => {
    const setup = found(await rewordSetup(database, idOf(request), bodyAs(request, setupChange).change), 'setup');
    await bay.refresh(setup.jobId);
    response.json(setup);
  });

  return router;
}
