import { z } from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { standardIds } from '../../core/air/correction.ts';
import { papers } from '../../contract/report/report.ts';
import { units } from '../../contract/values/units.ts';
import { keptUnits } from '../../core/units/told-units.ts';

/** What this browser remembers. Figures that must be reproducible stand in the address instead. */
const preferences = z.object({
  /** What quantities are told in where nobody is signed in. */
  units,
  /** Used where the address names none. */
  standard: z.enum(standardIds),
  /** The two channels shown large while recording, beside engine and road speed. */
  largeChannels: z.tuple([z.string(), z.string()]),
  /** The cautions before the first run have been read on this machine. */
  cautionsRead: z.boolean(),
  /** What is heard while recording. */
  cues: z.enum(['off', 'beeps', 'spoken']),
  /** What reports are printed on. */
  paper: z.enum(papers),
  /** For a litre of fuel, where it is not the price list’s. */
  fuelPrice: z.number().positive().nullable(),
  /** Whose work is written down here where nobody signs in. */
  ownName: z.string().max(120),
});
type Preferences = z.infer<typeof preferences>;

const usual: Preferences = {
  units: keptUnits,
  standard: 'sae-j1349',
  largeChannels: ['lambda', 'intakeTemperature'],
  cautionsRead: false,
  cues: 'beeps',
  paper: 'A4',
  fuelPrice: null,
  ownName: '',
};

/** The usual preferences with those that a browser kept, as far as they can be understood; the two units that it kept before there were more among them. */
export function mergedPreferences(kept: unknown): Preferences {
  const found = kept !== null && typeof kept === 'object' ? (kept as Record<string, unknown>) : {};
  const { powerUnit: power, torqueUnit: torque } = found;
  const earlier = units
    .partial()
    .safeParse({ ...(power !== undefined && { power }), ...(torque !== undefined && { torque }) });
  const understood = Object.entries({ units: { ...keptUnits, ...earlier.data }, ...found }).filter(
    ([field, value]) =>
      Object.hasOwn(preferences.shape, field) && preferences.shape[field as keyof Preferences].safeParse(value).success,
  );
  return { ...usual, ...Object.fromEntries(understood) };
}

export const usePreferences = create<Preferences>()(
  persist<Preferences>(() => usual, { name: 'suvok-preferences', merge: (kept) => mergedPreferences(kept) }),
);

/** Keeps a choice for the next time, and makes it. */
export function remember(choice: Partial<Preferences>, make: () => void): void {
  usePreferences.setState(choice);
  make();
}
