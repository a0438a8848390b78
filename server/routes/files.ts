import type { Request } from 'express';
import { photoFields, tuneFileFields } from '../../contract/job/job-file.ts';
import type { Database } from '../../store/database/database.ts';
import {
  addPhoto,
  addReturnedFile,
  addTuneFile,
  photoContent,
  photoHash,
  photosOfJob,
  tuneFileById,
  tuneFileContent,
} from '../../store/jobs/files.ts';
import { changeRow } from '../../store/database/rows.ts';
import { setupById } from '../../store/jobs/setups.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { pictureKind } from '../picture.ts';
import { revisionOf } from './answer.ts';
import { upload } from './upload.ts';
import { takesAway } from './takes-away.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Tune files of setups and photos of jobs: opaque contents, kept as they came. */
export function fileRoutes(routes: ContractRoutes, database: Database): void {
  /** The file of a form, with what is written of it. */
  const fileOf = (request: Request) => {
    if (!request.file || request.file.size === 0) throw new HttpRefusal(400, 'No file came, or it was empty.');
    const { author = '', note = '' } = request.body as { author?: string; note?: string };
    const fields = bodyAs({ body: { name: request.file.originalname, author, note } }, tuneFileFields);
    return { ...fields, content: request.file.buffer };
  };

  routes.post('/setups/:id/tune-files', upload(64), async (request, response) => {
    const file = fileOf(request);
    const setup = found(await setupById(database, idOf(request)), 'setup');
    const { id, knownFrom } = await act(database, response, (client) => addTuneFile(client, setup, file));
    response.status(201).json({ file: found(await tuneFileById(database, id), 'file'), knownFrom });
  });

  routes.post('/setups/:id/returned-files', upload(64), async (request, response) => {
    const file = fileOf(request);
    const setup = found(await setupById(database, idOf(request)), 'setup');
    const returned = await act(database, response, (client) => addReturnedFile(client, setup, file));
    response.status(returned.again ? 200 : 201).json(returned);
  });

  routes.patch('/tune-files/:id', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, tuneFileFields.partial());
    const revision = revisionOf(request.body);
    found(
      await act(database, response, (client) => changeRow(client, 'setup_tune_file', id, fields, revision)),
      'file',
    );
    response.json(found(await tuneFileById(database, id), 'file'));
  });

  takesAway(routes, database, '/tune-files/:id', 'setup_tune_file', 'file');

  routes.get('/tune-files/:id/content', async (request, response) => {
    const { name, content } = found(await tuneFileContent(database, idOf(request)), 'file');
    response.attachment(name).type('application/octet-stream').send(content);
  });

  routes.post('/jobs/:id/photos', upload(25), async (request, response) => {
    const jobId = idOf(request);
    const content = request.file?.buffer;
    const mime = content && (await pictureKind(content));
    if (!mime)
      throw new HttpRefusal(
        400,
        'That is no whole picture that can be shown: JPEG, PNG and WebP are, up to 120 megapixels. Nothing was stored.',
      );
    const { caption } = bodyAs(
      { body: { caption: (request.body as { caption?: string }).caption ?? '' } },
      photoFields,
    );
    const id = await act(database, response, (client) => addPhoto(client, jobId, { caption, mime, content }));
    response.status(201).json(
      found(
        (await photosOfJob(database, jobId)).find((photo) => photo.id === id),
        'photo',
      ),
    );
  });

  routes.patch('/photos/:id', async (request, response) => {
    const id = idOf(request);
    const fields = bodyAs(request, photoFields);
    found(await act(database, response, (client) => changeRow(client, 'photo', id, fields)), 'photo');
    response.status(204).end();
  });

  takesAway(routes, database, '/photos/:id', 'photo', 'photo');

  routes.get('/photos/:id/content', async (request, response) => {
    const id = idOf(request);
    // Kept by what it holds and asked after each time: in restored data the number may be another photo's.
    const hash = found(await photoHash(database, id), 'photo');
    response.set({ 'cache-control': 'private, no-cache', etag: `"${hash}"` });
    if (request.fresh) return void response.status(304).end();
    const { mime, content } = found(await photoContent(database, id), 'photo');
    response.type(mime).send(content);
  });
}
