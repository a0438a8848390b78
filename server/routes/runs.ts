import { Router } from 'express';
import { z } from 'zod';
import { runChange } from '../../contract/http.ts';
import type { Run } from '../../contract/records.ts';
import { standardIds } from '../../core/air/correction.ts';
import { withAirColumns } from '../../core/exchange/air-columns.ts';
import { curveToJson } from '../../core/exchange/curve-json.ts';
import { writeRecordingCsv } from '../../core/exchange/write-csv.ts';
import { curveOf, preparedSweep, resolvedSpan, usualGridRpm } from '../../core/reduction/reduce.ts';
import { readSpan } from '../../core/smoothing/span.ts';
import type { Database } from '../store/database.ts';
import { changeRun, moveRun, runById, unclaimedRuns } from '../store/runs.ts';
import { dynoSource, recordingOf } from '../store/samples.ts';
import { act, bodyAs, found, HttpRefusal, idOf } from './answer.ts';
import { recordingBytes } from './recording-bytes.ts';

/** `auto`, a span in rpm, or one that varies as the page writes it. */
const smoothingWord = z.union([
  z.literal('auto'),
  z
    .string()
    .max(200)
    .refine((word) => readSpan(word) !== undefined)
    .transform((word) => readSpan(word)!),
]);

const curveQuery = z.object({
  standard: z.enum(standardIds).default('sae-j1349'),
  smoothing: smoothingWord.default('auto'),
  grid: z.coerce.number().positive().default(usualGridRpm),
  share: z.coerce.number().min(0).max(1).default(1),
});

/** Whose samples are asked for: the dyno's own, or those of a logger beside it. */
function sourceIn(asked: unknown, run: Run): number {
  if (asked === undefined) return dynoSource;
  return found(run.logs.find((log) => String(log.source) === asked)?.source, 'log');
}

/** Runs: what people say about them, their samples and their curves. */
export function runRoutes(database: Database): Router {
  const router = Router();
  const runAt = async (id: number) => found(await runById(database, id), 'run');

  router.get('/unclaimed-runs', async (_request, response) => {
    response.json(await unclaimedRuns(database));
  });

  router.get('/runs/:id', async (request, response) => {
    response.json(await runAt(idOf(request)));
  });

  router.patch('/runs/:id', async (request, response) => {
    const id = idOf(request);
    const { setupId, ...change } = bodyAs(request, runChange);
    const run = await runAt(id);
    await act(database, response, async (client) => {
      found(await changeRun(client, id, change), 'run');
      if (setupId !== undefined) found(await moveRun(client, run, setupId), 'setup');
    });
    response.json(await runAt(id));
  });

  router.get('/runs/:id/recording', async (request, response) => {
    const run = await runAt(idOf(request));
    const source = sourceIn(request.query.source, run);
    // Samples never change once a run has ended, so a browser may keep them for ever.
    response.set('cache-control', run.state === 'recording' ? 'no-store' : 'private, max-age=31536000, immutable');
    response.type('application/octet-stream').send(recordingBytes(await recordingOf(database, run, source)));
  });

  router.get('/runs/:id/run.csv', async (request, response) => {
    const run = await runAt(idOf(request));
    const source = sourceIn(request.query.source, run);
    const recorded = await recordingOf(database, run, source);
    const recording = source === dynoSource ? withAirColumns(recorded, run.air ?? undefined) : recorded;
    const name = run.label ?? `run-${run.id}`;
    response
      .attachment(`${name}${source === dynoSource ? '' : `-log-${source}`}.csv`)
      .type('text/csv; charset=utf-8')
      .send(writeRecordingCsv(recording));
  });

  router.get('/runs/:id/dyno.json', async (request, response) => {
    const run = await runAt(idOf(request));
    response.attachment('dyno.json').json(run.dyno);
  });

  router.get('/runs/:id/air.json', async (request, response) => {
    const run = await runAt(idOf(request));
    response.attachment('air.json').json(found(run.air ?? undefined, 'air: none was recorded with this run'));
  });

  router.get('/runs/:id/curve', async (request, response) => {
    const query = curveQuery.safeParse(request.query);
    if (!query.success)
      throw new HttpRefusal(400, `"${String(query.error.issues[0]!.path[0])}" is not a setting of a curve.`);
    const { standard, smoothing, grid, share } = query.data;
    const run = await runAt(idOf(request));
    const sweep = preparedSweep(await recordingOf(database, run), run.dyno, run.engineToDrumRatio ?? undefined);
    const spanRpm = resolvedSpan(smoothing, [sweep]);
    const curve = curveOf(sweep, run.air ?? undefined, { standard, share, spanRpm, gridRpm: grid });
    response.json(curveToJson(curve, smoothing === 'auto'));
  });

  return router;
}
