import { z } from 'zod';
import { dynoFile } from '../files/machine-and-air.ts';
import { bayNumber, identifier, rpm, trimmedText } from '../values/parts.ts';
import { probePlace } from '../instruments/recording.ts';

/** Bodies of requests about a bay and its instruments. */

export const mounting = z.object({ jobId: identifier, setupId: identifier });
export type Mounting = z.infer<typeof mounting>;

/** What a bay is called. */
export const bayName = z.object({ name: trimmedText(40).min(1, 'name the bay') });

export const faultsRequest = z.object({ device: z.string().max(64), faults: z.array(z.string().max(40)).max(40) });

export const ratioRequest = z.object({
  device: z.string().max(64),
  /** As read off the car's own instrument, where the dyno has no pickup. */
  engineRpm: rpm.optional(),
});

export const deviceRequest = z.object({ device: z.string().max(64) });

export const deviceSettingsRequest = deviceRequest.extend({
  channelNames: z.record(z.string().max(64), z.string().trim().max(64)).optional(),
  probe: probePlace.optional(),
  /** Moves it to a bay; null takes it out of its bay. */
  bay: bayNumber.nullable().optional(),
  altitudeM: dynoFile.shape.altitudeM.unwrap().nullable().optional(),
  ratio: z.null().optional(),
  zero: z.null().optional(),
});
export type DeviceSettingsRequest = z.input<typeof deviceSettingsRequest>;

export const armRequest = z.object({ afterS: z.number().nonnegative().max(7200).optional() });

/** A name for one bay more: the next number that no bay has. */
export function nextBayName(bays: readonly { name: string }[]): string {
  let number = bays.length + 1;
  while (bays.some(({ name }) => name.toLowerCase() === `bay ${number}`)) number++;
  return `Bay ${number}`;
}
