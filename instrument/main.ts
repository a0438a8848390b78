import { z } from 'zod';
import { giveUp, liveAsProcess, logInto, orGiveUp } from '../recorder/as-process.ts';
import { linesPlace } from '../recorder/local-link/socket-place.ts';
import { adaptedPlaces } from './adapters/adapters.ts';
import { Lines } from './lines.ts';

/** What takes lines of instruments, as a process of its own: a recorder that dies loses none of them. */
const environment = z
  .object({
    SUVOK_RECORDER: z.string().min(1),
    SUVOK_LOG: z.string().optional(),
    SUVOK_ADAPTERS: z.string().default(''),
  })
  .safeParse(process.env);

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { SUVOK_RECORDER, SUVOK_LOG, SUVOK_ADAPTERS } = environment.data;

const places = orGiveUp(() => adaptedPlaces(SUVOK_ADAPTERS));
const lines = new Lines(linesPlace(SUVOK_RECORDER), places);
liveAsProcess({}, () => Promise.resolve(lines.close()), logInto(SUVOK_LOG));
