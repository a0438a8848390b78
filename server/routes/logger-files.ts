import { joinedLog, logSource } from '../../contract/instruments/logger-file.ts';
import { recordingFromBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import type { Recording } from '../../core/recording/recording.ts';
import type { Database } from '../../store/database/database.ts';
import { joinLog, keepLogSource, logSources, takeLogOff } from '../../store/runs/logger-files.ts';
import { runById } from '../../store/runs/runs.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { act, bodyAs, found, idOf, settingsAs } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { upload } from './upload.ts';

/** Files of loggers: how they are read, and the runs that they join. */
export function loggerFileRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/log-sources', async (_request, response) => {
    response.json(await logSources(database));
  });

  routes.put('/log-sources', async (request, response) => {
    const source = bodyAs(request, logSource);
    await keepLogSource(database, source);
    response.json(source);
  });

  routes.post('/runs/:id/logs', upload(100, 1), async (request, response) => {
    const id = idOf(request);
    const words = settingsAs(request, joinedLog);
    if (!request.file) throw new HttpRefusal(400, 'No file came with the request.');
    const recording = recordingIn(request.file.buffer);
    await act(database, response, async (client) => {
      const run = found(await runById(client, id), 'run');
      if (run.state === 'recording')
        throw new HttpRefusal(409, 'This run is being recorded: add the log once it has ended.');
      await joinLog(client, run, words, recording);
    });
    response.status(201).json(found(await runById(database, id), 'run'));
  });

  routes.delete('/runs/:id/logs/:source', async (request, response) => {
    const id = idOf(request);
    await act(database, response, async (client) => {
      const run = found(await runById(client, id), 'run');
      found(await takeLogOff(client, run, Number(request.params.source)), 'log');
    });
    response.json(found(await runById(database, id), 'run'));
  });
}

const mostChannels = 200;

/** The samples that came, in the form in which they are sent the other way. @throws HttpRefusal where they are none */
function recordingIn(buffer: Buffer): Recording {
  const refuse = (why: string) => new HttpRefusal(400, `The samples were not understood: ${why}. Nothing was stored.`);
  let recording: Recording;
  try {
    recording = recordingFromBytes(Uint8Array.from(buffer).buffer);
  } catch {
    throw refuse('they are cut short or of another form');
  }
  const { time, channels } = recording;
  if (time.length < 2 || channels.length === 0) throw refuse('they hold no channel');
  if (channels.length > mostChannels) throw refuse(`more than ${mostChannels} channels`);
  if (!time.every((at, index) => Number.isFinite(at) && (index === 0 || at > time[index - 1]!)))
    throw refuse('their time does not advance');
  const names = new Set(channels.map(({ name }) => name));
  if (
    names.size < channels.length ||
    channels.some(({ name, unit }) => typeof name !== 'string' || name === '' || typeof unit !== 'string')
  )
    throw refuse('two channels have one name, or one has none');
  return recording;
}
