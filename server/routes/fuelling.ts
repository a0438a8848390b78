import type { z } from 'zod';
import { setupFuelling } from '../../contract/shop/fuelling.ts';
import type { Run } from '../../contract/job/records.ts';
import type { FuellingOfRuns } from '../../core/fuelling/fuelling-of-runs.ts';
import { fuelledRuns } from '../../core/fuelling/fuelled-runs.ts';
import { axesOf, settingsOf } from '../../core/fuelling/layout.ts';
import { knowledgeOf, proposedMultiplier, standingOf } from '../../core/fuelling/standing.ts';
import { delayWords, usedWords } from '../../core/wording/fuelling-words.ts';
import type { Database } from '../../store/database/database.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { setupById } from '../../store/jobs/setups.ts';
import { recordedBytes } from '../reports/read-runs.ts';
import { found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';

/** Fuelling errors, made from the recordings in a thread of their own. */
export function fuellingRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/setups/:id/fuelling', async (request, response) => {
    const id = idOf(request);
    const setup = found(await setupById(database, id), 'setup');
    const job = found(await jobWithAll(database, setup.jobId), 'job');
    const runs: Run[] = fuelledRuns(job.runs, id);
    const { fuelling } = job.car;
    await inThread(request, response, async (thread, told) => {
      const bytes = await recordedBytes(database, runs);
      const asked = { fuelled: runs, recordings: bytes, axes: axesOf(fuelling, runs), settings: settingsOf(fuelling) };
      const { fuelling: made } = await thread.ask('fuelling', asked, [bytes]);
      told.end(200, answerOf(setup.letter, made));
    });
  });
}

function answerOf(setup: string, { axes, table, used, refused }: FuellingOfRuns): z.output<typeof setupFuelling> {
  const finite = (value: number) => (Number.isFinite(value) ? value : null);
  return setupFuelling.parse({
    setup,
    axes,
    cells: (table?.cells ?? []).map((cell) => ({
      error: finite(cell.error),
      halfWidth: finite(cell.halfWidth),
      spread: finite(cell.spread),
      effectiveCount: cell.effectiveCount,
      seconds: cell.seconds,
      knowledge: knowledgeOf(cell),
      standing: standingOf(cell),
      multiplier: proposedMultiplier(cell),
    })),
    delay: table?.delay ?? null,
    delayFrom: table?.delayFrom ?? null,
    words: table ? `${usedWords(table)} ${delayWords(table)}` : 'No run at part load with λ.',
    used,
    refused,
  });
}
