import {
  owner,
  vehicle,
  vehicleFields,
  vehicleJob,
  vehicleSummary,
  type Vehicle,
  type VehicleSummary,
  type VehicleWithAll,
  type Owner,
} from '../../contract/shop/vehicles.ts';
import type { Queryable } from '../database/database.ts';
import { entriesOf } from '../database/entries.ts';
import { insertRow, recordOf } from '../database/rows.ts';

const fields = `vehicle.id, vehicle.revision, vehicle.owner_id, coalesce(owner.name, '') as owner_name, vehicle.name, plate,
  engine, ignition, induction, fuel_system, fuel_regulation,
  injectors, injector_flow_cc_min, injector_rated_kpa, pump_flow_lh, pump_rated_kpa, gearbox, driven_axle, tyres, tank_litres, gears, final_drive,
  mass_kg, drag_area_m2, rolling_coefficient, factory_kw,
  factory_nm, vehicle.note, vehicle.fuelling, displacement_l`;
const from = 'from vehicle left join owner on owner.id = vehicle.owner_id';

export async function vehicleById(database: Queryable, id: number): Promise<Vehicle | undefined> {
  const { rows } = await database.query(
    `select ${fields} ${from} where vehicle.id = $1 and vehicle.removed_at is null`,
    [id],
  );
  return rows[0] && recordOf(vehicle, rows[0]);
}

/** All vehicles that match a search, the one seen last first. */
export async function vehicleSummaries(database: Queryable, search: string, most = 200): Promise<VehicleSummary[]> {
  const { rows } = await database.query(
    `select ${fields}, seen.jobs, seen.last_run_at ${from},
       lateral (select count(*)::int as jobs, max(last_run_at) as last_run_at from job where vehicle_id = vehicle.id) as seen
     where vehicle.removed_at is null
       and lower(vehicle.name || ' ' || plate || ' ' || coalesce(owner.name, '') || ' ' || engine) like all($1)
     order by coalesce(seen.last_run_at, vehicle.created_at) desc, vehicle.id desc limit $2`,
    [patterns(search), most],
  );
  return rows.map((row) => recordOf(vehicleSummary, row));
}

/** One pattern a word, in small letters; signs that mean something in patterns stand for themselves. */
export function patterns(search: string): string[] {
  return search
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);
}

/** A vehicle with its owner, parts and jobs, or undefined. */
export async function vehicleWithAll(database: Queryable, id: number): Promise<VehicleWithAll | undefined> {
  const car = await vehicleById(database, id);
  if (!car) return undefined;
  const { rows: jobs } = await database.query(
    `select id, question, state, created_at, last_run_at,
       (select count(*)::int from setup where job_id = job.id and removed_at is null) as setups,
       (select count(*)::int from run where job_id = job.id) as runs
     from job where vehicle_id = $1 order by coalesce(last_run_at, created_at) desc`,
    [id],
  );
  const { rows: owners } = await database.query(
    'select id, revision, name, contact, note from owner where id = $1 and removed_at is null',
    [car.ownerId],
  );
  return {
    ...car,
    owner: owners[0] ? recordOf(owner, owners[0]) : null,
    parts: await entriesOf(database, 'parts', id),
    jobs: jobs.map((row) => recordOf(vehicleJob, row)),
  };
}

/** The owner of a name, written down where it is new; null for no name. @param more what is written of a new one */
export async function ownerNamed(
  database: Queryable,
  name: string,
  more: { contact?: string; note?: string } = {},
): Promise<number | null> {
  if (name === '') return null;
  const { rows } = await database.query(
    'select id from owner where lower(name) = lower($1) and removed_at is null order by id limit 1',
    [name],
  );
  return rows[0]?.id ?? (await insertRow(database, 'owner', { name, ...more }));
}

/** The vehicle of a name and an owner, written down where it is new. */
export async function vehicleNamed(database: Queryable, name: string, owner: string): Promise<number> {
  const ownerId = await ownerNamed(database, owner);
  const { rows } = await database.query(
    `select id from vehicle where lower(name) = lower($1) and owner_id is not distinct from $2 and removed_at is null
     order by id limit 1`,
    [name, ownerId],
  );
  return rows[0]?.id ?? (await insertRow(database, 'vehicle', { name, ownerId }));
}

/**
 * Looks for a vehicle that says the same of itself, whatever its number here.
 * @returns its number; and whether there is one of that name and plate that says otherwise
 */
export async function sameVehicle(
  database: Queryable,
  car: Vehicle,
): Promise<{ same: number | undefined; otherFacts: boolean }> {
  const { rows } = await database.query(
    `select ${fields} ${from} where lower(vehicle.name) = lower($1) and plate = $2 and vehicle.removed_at is null
     and vehicle.owner_id is not distinct from $3 order by vehicle.id`,
    [car.name, car.plate, car.ownerId],
  );
  const facts = (one: Vehicle) => JSON.stringify({ ...vehicleFields.parse(one), fuelling: one.fuelling ?? null });
  const same = rows.map((row) => recordOf(vehicle, row)).find((one) => facts(one) === facts(car));
  return { same: same?.id, otherFacts: rows.length > 0 };
}

export const addVehicle = (database: Queryable, car: Vehicle): Promise<number> =>
  insertRow(database, 'vehicle', vehicleFields.parse(car));

export async function owners(database: Queryable): Promise<Owner[]> {
  const { rows } = await database.query(
    'select id, revision, name, contact, note from owner where removed_at is null order by name, id',
  );
  return rows;
}
