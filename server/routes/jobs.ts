import { z } from 'zod';
import { jobChange, newJob, newSetup, setupChange, stateChange } from '../../contract/job/job-requests.ts';
import { freezing } from '../../contract/job/job-file.ts';
import type { RecorderClient } from '../recorder-client.ts';
import { freezeBaseline } from '../../store/jobs/baselines.ts';
import type { Database } from '../../store/database/database.ts';
import type { Job } from '../../contract/job/records.ts';
import { pointsOfJob } from '../../core/handover/open-points.ts';
import { written } from '../../core/sentence/sentence.ts';
import { changesOfJob, undoAct } from '../../store/jobs/history.ts';
import { jobFilters, jobList } from '../../store/jobs/job-list.ts';
import { addJob, jobWithAll, setJobState } from '../../store/jobs/jobs.ts';
import { changeRow } from '../../store/database/rows.ts';
import { addSetup, changeSetup, setupById } from '../../store/jobs/setups.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { takesAway } from './takes-away.ts';
import type { ContractRoutes } from './contract-routes.ts';

const listQuery = z.object({
  search: z.string().max(200).default(''),
  state: z.enum(jobFilters).default('all'),
  offset: z.coerce.number().int().nonnegative().default(0),
  most: z.coerce.number().int().positive().max(200).default(50),
});

/** What is open of a job that is about to be closed, as it is recorded. */
const stillOpen = (job: Job) => pointsOfJob(job).flatMap(({ done, says }) => (done ? [] : [written(says)]));

/** Jobs, their setups, and their history. */
export function jobRoutes(routes: ContractRoutes, database: Database, bays: RecorderClient): void {
  const whole = async (id: number) => found(await jobWithAll(database, id), 'job');

  routes.get('/jobs', async (request, response) => {
    const query = listQuery.safeParse(request.query);
    if (!query.success) throw new HttpRefusal(400, 'The list was asked for in a form that is not understood.');
    response.json(await jobList(database, query.data));
  });

  routes.post('/jobs', async (request, response) => {
    const fields = bodyAs(request, newJob);
    const id = await act(database, response, (client) => addJob(client, fields));
    response.status(201).json(await whole(id));
  });

  routes.get('/jobs/:id', async (request, response) => {
    response.json(await whole(idOf(request)));
  });

  routes.patch('/jobs/:id', async (request, response) => {
    const id = idOf(request);
    const { revision, ...fields } = bodyAs(request, jobChange);
    found(await act(database, response, (client) => changeRow(client, 'job', id, fields, revision)), 'job');
    await bays.tell({ ask: 'refresh', with: { jobId: id } });
    response.json(await whole(id));
  });

  routes.put('/jobs/:id/state', async (request, response) => {
    const id = idOf(request);
    const change = bodyAs(request, stateChange);
    const more =
      change.state === 'closed'
        ? { delivery: { ...change, openPoints: stillOpen({ ...(await whole(id)), ...change }) } }
        : change.state === 'paused'
          ? { pause: change }
          : {};
    found(await act(database, response, (client) => setJobState(client, id, change.state, more)), 'job');
    if (change.state === 'closed') await bays.tell({ ask: 'unmount', with: { jobId: id } });
    response.json(await whole(id));
  });

  routes.post('/jobs/:id/baseline', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, freezing);
    await whole(id);
    await act(database, response, (client) => freezeBaseline(client, id, fields));
    response.status(201).json(await whole(id));
  });

  routes.post('/jobs/:id/setups', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, newSetup);
    await whole(id);
    const setup = await act(database, response, (client) => addSetup(client, id, fields));
    response.status(201).json(setup);
  });

  routes.patch('/setups/:id', async (request, response) => {
    const id = idOf(request);
    const change = bodyAs(request, setupChange);
    found(await act(database, response, (client) => changeSetup(client, id, change)), 'setup');
    const setup = found(await setupById(database, id), 'setup');
    await bays.tell({ ask: 'refresh', with: { jobId: setup.jobId } });
    response.json(setup);
  });

  takesAway(routes, database, '/setups/:id', 'setup', 'setup');

  routes.get('/jobs/:id/history', async (request, response) => {
    const id = idOf(request);
    await whole(id);
    response.json(await changesOfJob(database, id));
  });

  /** Undoes all that one act changed. */
  routes.post('/acts/:id/undo', async (request, response) => {
    const id = idOf(request);
    found(await act(database, response, (client) => undoAct(client, id)), 'act to undo');
    for (const { mounted } of bays.state().bays)
      if (mounted) await bays.tell({ ask: 'refresh', with: { jobId: mounted.jobId } });
    response.status(204).end();
  });
}
