import type { z } from 'zod';
import { setupTests } from '../../contract/job/other-tests.ts';
import { runsOfOwnKinds, type JudgedKind } from '../../core/figures/runs/kinds-of-job.ts';
import { recordOfJob } from '../../core/figures/request/record-of-job.ts';
import { written } from '../../core/sentence/sentence.ts';
import type { Database } from '../../store/database/database.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { setupById } from '../../store/jobs/setups.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { readRuns } from '../reports/read-runs.ts';
import { found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';

/** Runs that are no power runs, judged in a thread of their own. */
export function otherTestRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/setups/:id/tests', async (request, response) => {
    const id = idOf(request);
    const { jobId } = found(await setupById(database, id), 'setup');
    const job = found(await jobWithAll(database, jobId), 'job');
    const setup = found(
      job.setups.find((one) => one.id === id),
      'setup',
    );
    const letter = typeof request.query.against === 'string' ? request.query.against : undefined;
    const against = job.setups.find((one) =>
      letter === undefined ? one.id === (setup.parentId ?? id) : one.letter === letter,
    );
    if (!against) throw new HttpRefusal(404, `Job ${job.id} has no setup "${letter}".`);
    await inThread(request, response, async (thread, told) => {
      await readRuns(thread, database, runsOfOwnKinds(job.runs));
      const sides = { againstId: against.id, testId: setup.id };
      const { tests } = await thread.ask('tests', { tested: recordOfJob(job), sides });
      told.end(
        200,
        setupTests.parse({ setup: setup.letter, against: against.letter, kinds: tests.shown.map(kindAnswer) }),
      );
    });
  });
}

const finite = (value: number) => (Number.isFinite(value) ? value : null);

function kindAnswer({ kind, judgement, runs }: JudgedKind): z.input<typeof setupTests>['kinds'][number] {
  return {
    kind,
    judged: judgement
      ? {
          ...judgement,
          figures: judgement.figures.map((figure) => ({
            ...figure,
            before: finite(figure.before),
            after: finite(figure.after),
            difference: finite(figure.difference),
            halfWidth: finite(figure.halfWidth),
          })),
        }
      : null,
    runs: runs.map(({ id, label, figures, why }) => ({
      id,
      label: label ?? '',
      figures: (figures?.figures ?? []).map((figure) => ({
        ...figure,
        value: finite(figure.value),
        halfWidth: finite(figure.halfWidth),
      })),
      found: (figures?.found ?? []).map(({ id: what, severity, message }) => ({
        id: what,
        severity,
        message: written(message),
      })),
      why: why ?? null,
    })),
  };
}
