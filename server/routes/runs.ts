import { z } from 'zod';
import { runChange, runsChange } from '../../contract/job/job-requests.ts';
import type { Run } from '../../contract/job/records.ts';
import { standardIds } from '../../core/air/correction.ts';
import { withAirColumns } from '../../core/exchange/recordings/air-columns.ts';
import { curveToJson } from '../../core/exchange/results/curve-json.ts';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { usualGridRpm } from '../../core/figures/runs/corrected-curve.ts';
import { readSpan } from '../../core/smoothing/span.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Database, Queryable } from '../../store/database/database.ts';
import { changeRun, moveRun, runById, unclaimedRuns } from '../../store/runs/runs.ts';
import { dynoSource, recordingOf, recordingsOf } from '../../store/runs/samples.ts';
import { act, bodyAs, found, idOf, refuseStrangers } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { recordOfJob } from '../../core/figures/request/record-of-job.ts';
import { runsBehindCurve, curveOfRun, loneRun } from '../../core/figures/curve-of-run.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import {
  recordingToBytes,
  recordingsToBytes,
  sourceKey,
  sourceOfKey,
} from '../../core/exchange/recordings/recording-bytes.ts';
import { readingOf } from '../../core/figures/runs/reading.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** `auto`, a span in rpm, or one that varies as the page writes it. */
const smoothingWord = z.union([
  z.literal('auto'),
  z
    .string()
    .max(200)
    .transform((word, context) => {
      const span = readSpan(word);
      if (span === undefined) context.addIssue('is no span of engine speed');
      return span ?? z.NEVER;
    }),
]);

const curveQuery = z.object({
  standard: z.enum(standardIds).default('sae-j1349'),
  smoothing: smoothingWord.default('auto'),
  // A finer grid than this is made of noise, a coarser one is no curve.
  grid: z.coerce.number().min(5).max(500).default(usualGridRpm),
  share: z.coerce.number().min(0).max(1).default(1),
});

/** What was recorded never changes: a browser may keep it for ever. */
const immutable = 'private, max-age=31536000, immutable';

/** Runs by their keys, and loggers beside them: `KEY.KEY-1`, and of a file that was joined `KEY-2-` and the first eight of its own. */
const askedSource = z
  .string()
  .regex(/^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}(-\d{1,2}(-[\da-f]{8})?)?$/)
  .transform((text) => {
    const [source, logKey] = text.slice(37).split('-');
    return { ...sourceOfKey(text.slice(0, 37 + (source?.length ?? 0))), logKey };
  });
const sourceList = z
  .string()
  .transform((text) => text.split('.'))
  .pipe(z.array(askedSource).max(100));

/** Whose samples are asked for: the dyno's own, or those of a logger beside it. */
function sourceIn(asked: unknown, run: Run): number {
  if (asked === undefined) return dynoSource;
  return found(run.logs.find((log) => String(log.source) === asked)?.source, 'log');
}

/** Runs: what people say about them, their samples and their curves. */
export function runRoutes(routes: ContractRoutes, database: Database): void {
  const runAt = async (id: number) => found(await runById(database, id), 'run');

  routes.get('/unclaimed-runs', async (_request, response) => {
    response.json(await unclaimedRuns(database));
  });

  routes.get('/runs/:id', async (request, response) => {
    response.json(await runAt(idOf(request)));
  });

  const change = async (client: Queryable, id: number, { setupId, ...fields }: z.output<typeof runChange>) => {
    const run = found(await runById(client, id), 'run');
    if (run.state === 'recording' && 'startedAt' in fields)
      throw new Refusal('This run is being recorded: put its time right once it has ended.');
    found(await changeRun(client, run, fields), 'run');
    if (setupId !== undefined) found(await moveRun(client, run, setupId), 'setup');
  };

  routes.patch('/runs/:id', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, runChange);
    await act(database, response, (client) => change(client, id, fields));
    response.json(await runAt(id));
  });

  routes.patch('/runs', async (request, response) => {
    const { runIds, change: fields } = bodyAs(request, runsChange);
    refuseStrangers((request.body as { change: unknown }).change, runChange);
    await act(database, response, async (client) => {
      for (const id of runIds) await change(client, id, fields);
    });
    response.json(await Promise.all(runIds.map(runAt)));
  });

  routes.get('/runs/:id/recording', async (request, response) => {
    const run = await runAt(idOf(request));
    const source = sourceIn(request.query.source, run);
    const bytes = Buffer.from(recordingToBytes(await recordingOf(database, run, source)).buffer);
    // Samples never change once a run has ended, so a browser may keep them for ever under its key: its number may
    // be another one's in restored data.
    const { key } = request.query;
    if (key !== undefined && key !== run.key) throw new HttpRefusal(404, 'The run of this number has another key.');
    response.set('cache-control', run.state === 'recording' || key === undefined ? 'no-store' : immutable);
    response.type('application/octet-stream').send(bytes);
  });

  routes.get('/recordings', async (request, response) => {
    const asked = sourceList.safeParse(request.query.of);
    if (!asked.success) {
      const form = '?of=KEY.KEY-1 for a run and the first logger beside it, 100 at most';
      throw new HttpRefusal(400, `Name the runs by their keys: ${form}.`);
    }
    const recordings = await recordingsOf(database, asked.data);
    const missing = asked.data.map(sourceKey).find((key) => !recordings.has(key));
    if (missing !== undefined) throw new HttpRefusal(404, `Run ${missing} is not there, or has not ended yet.`);
    const bytes = Buffer.from(recordingsToBytes(recordings).buffer);
    response.set('cache-control', immutable).type('application/octet-stream').send(bytes);
  });

  routes.get('/runs/:id/run.csv', async (request, response) => {
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

  routes.get('/runs/:id/dyno.json', async (request, response) => {
    const run = await runAt(idOf(request));
    response.attachment('dyno.json').json(run.dyno);
  });

  routes.get('/runs/:id/air.json', async (request, response) => {
    const run = await runAt(idOf(request));
    response.attachment('air.json').json(found(run.air ?? undefined, 'air: none was recorded with this run'));
  });

  routes.get('/runs/:id/curve', async (request, response) => {
    const query = curveQuery.safeParse(request.query);
    if (!query.success)
      throw new HttpRefusal(400, `"${String(query.error.issues[0]!.path[0])}" is not a setting of a curve.`);
    const { standard, smoothing, grid, share } = query.data;
    const view = { standard, smoothing, share, gridRpm: grid };
    const run = await runAt(idOf(request));
    const stored = run.jobId === null ? undefined : await jobWithAll(database, run.jobId);
    const { job, runs } = stored
      ? {
          job: recordOfJob(stored),
          runs: runsBehindCurve(stored, run, view),
        }
      : { job: loneRun(run).job, runs: [run] };
    const readings = await Promise.all(
      runs.map(async (run) => [run.id, readingOf(run, await recordingOf(database, run))] as const),
    );
    response.json(curveToJson(curveOfRun(job, run, view, new Map(readings)), smoothing === 'auto'));
  });
}
