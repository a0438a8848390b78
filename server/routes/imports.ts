import { rm } from 'node:fs/promises';
import { importSettings } from '../../contract/job/job-requests.ts';
import { storeImport } from '../import/store-import.ts';
import type { ImportReader } from '../import/import-reader.ts';
import type { Database } from '../../store/database/database.ts';
import { settingsAs } from './answer.ts';
import { ToldAsItGoes } from './told-as-it-goes.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { upload } from './upload.ts';
import type { ContractRoutes } from './contract-routes.ts';

/** Recordings from files: `file` holds the CSV, `settings` the importSettings as JSON. */
export function importRoutes(routes: ContractRoutes, database: Database, reader: ImportReader): void {
  routes.post('/imports', upload(200, 1, 'disk'), async (request, response) => {
    const { file } = request;
    if (!file) throw new HttpRefusal(400, 'No file came with the request.');
    try {
      const told = new ToldAsItGoes(request, response);
      const { path, originalname: name } = file;
      told.end(201, await storeImport({ path, name }, settingsAs(request, importSettings), told, { database, reader }));
    } finally {
      await rm(file.path, { force: true });
    }
  });
}
