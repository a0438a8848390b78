import { z } from 'zod';
import { identifier, trimmedText, moment, freeText } from '../values/parts.ts';
import { fuellingAxes } from '../values/setup-item.ts';

/** Owners, their vehicles and what is in these. */

/** How late a λ probe reads, s: the way of the gas at the usual flow, and the probe's own lag. */
export const probeDelay = z.object({ transportS: z.number().min(0).max(1.5), lagS: z.number().min(0.005).max(1) });

/** How fuelling errors of a vehicle are laid out and made. */
export const vehicleFuelling = z.object({
  axes: fuellingAxes,
  /** Readings are shared among the corners around them, or given to the nearest breakpoint within a share of the step. */
  dealing: z.union([
    z.object({ by: z.literal('corners') }),
    z.object({ by: z.literal('nearest'), tolerance: z.number().min(0.05).max(0.5) }),
  ]),
  /** null: found in the data. */
  delay: probeDelay.nullable(),
  /** Aimed at where the log has no target. */
  lambdaTarget: z.number().min(0.5).max(3),
});
export type VehicleFuelling = z.infer<typeof vehicleFuelling>;

export const ownerFields = z.object({
  name: trimmedText(120).min(1, 'name the owner'),
  contact: trimmedText(200),
  note: freeText(2000),
});

export const vehicleFields = z.object({
  ownerId: identifier.nullable(),
  name: trimmedText(120).min(1, 'name the vehicle'),
  plate: trimmedText(20),
  engine: trimmedText(200),
  ignition: z.enum(['spark', 'compression', 'electric']).nullable(),
  induction: z.enum(['none', 'turbo', 'supercharger', 'both']).nullable(),
  fuelSystem: trimmedText(200),
  /** What the fuel pressure regulator holds constant: rail less manifold, the gauge pressure, or a target. */
  fuelRegulation: z.enum(['manifold', 'constant', 'target']).nullable(),
  /** What injectors and pump give as their maker rates them: each injector at a pressure across it, the pump at a gauge pressure. */
  injectors: z.int().min(1).max(48).nullable(),
  injectorFlowCcMin: z.number().positive().max(10_000).nullable(),
  injectorRatedKpa: z.number().positive().max(50_000).nullable(),
  pumpFlowLh: z.number().positive().max(5000).nullable(),
  pumpRatedKpa: z.number().positive().max(2000).nullable(),
  gearbox: trimmedText(200),
  drivenAxle: z.enum(['front', 'rear', 'all']).nullable(),
  tyres: trimmedText(120),
  tankLitres: z.number().positive().max(2000).nullable(),
  gears: z.array(z.object({ gear: trimmedText(20).min(1), ratio: z.number().positive().max(50) })).max(24),
  finalDrive: z.number().positive().max(50).nullable(),
  /** With driver and fuel. */
  massKg: z.number().positive().max(20_000).nullable(),
  /** Drag coefficient × frontal area. */
  dragAreaM2: z.number().positive().max(20).nullable(),
  /** Rolling drag as a share of the weight. */
  rollingCoefficient: z.number().positive().max(0.2).nullable(),
  factoryKw: z.number().positive().max(5000).nullable(),
  factoryNm: z.number().positive().max(20_000).nullable(),
  note: freeText(4000),
  /** Absent in what was written down before there were these; null until somebody laid a table out, or said how large the engine is. */
  fuelling: vehicleFuelling.nullable().optional(),
  displacementL: z.number().positive().max(100).nullable().optional(),
});

/** Whose it is may be said by name: found, or written down anew. */
const ownerName = trimmedText(120).optional();
export const vehicleChange = vehicleFields.partial().extend({ ownerName });
export const newVehicle = vehicleChange.required({ name: true });

export const partFields = z.object({
  name: trimmedText(200).min(1, 'name the part'),
  knowledge: z.enum(['known', 'believed', 'unknown']),
  note: trimmedText(500),
});

const stored = { id: identifier, revision: z.int().positive() };

export const owner = ownerFields.extend(stored);
export type Owner = z.infer<typeof owner>;
export const part = partFields.extend(stored);

export const vehicle = vehicleFields.extend({ ...stored, ownerName: z.string() });
export type Vehicle = z.infer<typeof vehicle>;

export const vehicleJob = z.object({
  id: identifier,
  question: z.string(),
  state: z.enum(['open', 'paused', 'closed']),
  createdAt: moment,
  lastRunAt: moment.nullable(),
  setups: z.int().nonnegative(),
  runs: z.int().nonnegative(),
});
export const vehicleWithAll = vehicle.extend({
  owner: owner.nullable(),
  parts: z.array(part),
  jobs: z.array(vehicleJob),
});
export type VehicleWithAll = z.infer<typeof vehicleWithAll>;

export const vehicleSummary = vehicle.extend({ jobs: z.int().nonnegative(), lastRunAt: moment.nullable() });
export type VehicleSummary = z.infer<typeof vehicleSummary>;
