import type { Database } from '../../store/database/database.ts';
import { addEquipmentFile, allEquipment, equipmentFileContent } from '../../store/shop/equipment.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { pictureKind } from '../picture.ts';
import { act, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { takesAway } from './takes-away.ts';
import { upload } from './upload.ts';

/** What must be kept in date, and its certificates; entries themselves are answered as every other short entry. */
export function equipmentRoutes(routes: ContractRoutes, database: Database): void {
  routes.get('/equipment', async (_request, response) => {
    response.json(await allEquipment(database));
  });

  routes.post('/equipment/:id/files', upload(25), async (request, response) => {
    const id = idOf(request);
    const { file } = request;
    const mime = file && (isPdf(file.buffer) ? 'application/pdf' : await pictureKind(file.buffer));
    if (!mime) throw new HttpRefusal(400, 'That is no whole PDF or picture (JPEG, PNG, WebP). Nothing was stored.');
    found(
      (await allEquipment(database)).find((one) => one.id === id),
      'equipment',
    );
    const { originalname: name, buffer: content } = file;
    response
      .status(201)
      .json(
        await act(database, response, (client) =>
          addEquipmentFile(client, id, { name: name.slice(0, 200), mime, content }),
        ),
      );
  });

  routes.get('/equipment-files/:id/content', async (request, response) => {
    const { name, mime, content } = found(await equipmentFileContent(database, idOf(request)), 'certificate');
    response.attachment(name).type(mime).set('content-security-policy', 'sandbox').send(content);
  });

  takesAway(routes, database, '/equipment-files/:id', 'equipment_file', 'certificate');
}

const isPdf = (content: Buffer) => content.subarray(0, 5).toString('latin1') === '%PDF-' && content.includes('%%EOF');
