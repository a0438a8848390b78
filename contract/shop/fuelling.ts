import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { fuellingAxes } from '../values/setup-item.ts';
import { probeDelay } from './vehicles.ts';

/** A cell of a fuel table: errors as shares, + is lean. null where nothing was driven. */
const fuellingCell = z.object({
  error: z.number().nullable(),
  /** Of the 95 % interval. */
  halfWidth: z.number().nullable(),
  /** Standard deviation of a reading of a second. */
  spread: z.number().nullable(),
  /** Independent readings of a second that the interval is worth. */
  effectiveCount: z.number(),
  seconds: z.number(),
  knowledge: z.enum(['empty', 'thin', 'known']),
  standing: z.enum(['within 1 %', 'within 3 %', 'beyond 3 %', 'beyond 1 %', 'open', 'not known']),
  /** What the cell's fuel is to be multiplied by; 1 where nothing is proposed. */
  multiplier: z.number(),
});

const fuelledRun = z.object({ id: z.int(), label: z.string() });

/** Fuelling errors of a setup over its vehicle's fuel table. */
export const setupFuelling = z.object({
  setup: z.string(),
  axes: fuellingAxes,
  /** In rows; empty where no run could be used. */
  cells: z.array(fuellingCell),
  delay: probeDelay.nullable(),
  delayFrom: z.enum(['typed', 'found', 'usual']).nullable(),
  /** What it rests on and what was left out, in words. */
  words: z.string(),
  used: z.array(fuelledRun),
  refused: z.array(fuelledRun.extend({ why: z.string() })),
});

export const fuellingEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/setups/:id/fuelling',
    does: 'Fuelling errors of a setup’s runs at part load over its vehicle’s fuel table, with what is proposed for each cell.',
    answer: setupFuelling,
  },
];
