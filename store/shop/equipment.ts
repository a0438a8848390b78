import { equipment, equipmentFile, type Equipment } from '../../contract/shop/equipment.ts';
import type { z } from 'zod';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

const fileColumns = 'id, name, mime, bytes, created_at';

/** All equipment, with what is known of its files. */
export async function allEquipment(database: Queryable): Promise<Equipment[]> {
  // Days as text: a day of the calendar has no zone.
  const { rows } = await database.query(
    `select id, revision, name, kind, serial, what, last_on::text, every_days, due_on::text, device, note from equipment
     where removed_at is null order by name, id`,
  );
  const { rows: files } = await database.query<Record<string, unknown> & { equipmentId: number }>(
    `select ${fileColumns}, equipment_id as "equipmentId" from equipment_file where removed_at is null order by id desc`,
  );
  return rows.map((row) =>
    recordOf(equipment, {
      ...row,
      files: files
        .filter(({ equipmentId }) => Number(equipmentId) === Number(row.id))
        .map((file) => recordOf(equipmentFile, file)),
    }),
  );
}

/** Takes a certificate in. @returns it */
export async function addEquipmentFile(
  database: Queryable,
  equipmentId: number,
  { name, mime, content }: { name: string; mime: string; content: Buffer },
): Promise<z.output<typeof equipmentFile>> {
  const { rows } = await database.query(
    `insert into equipment_file (equipment_id, name, mime, content) values ($1, $2, $3, $4) returning ${fileColumns}`,
    [equipmentId, name, mime, content],
  );
  return recordOf(equipmentFile, rows[0]);
}

export async function equipmentFileContent(
  database: Queryable,
  id: number,
): Promise<{ name: string; mime: string; content: Buffer } | undefined> {
  const { rows } = await database.query<{ name: string; mime: string; content: Buffer }>(
    'select name, mime, content from equipment_file where id = $1 and removed_at is null',
    [id],
  );
  return rows[0];
}
