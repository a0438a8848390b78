import { z } from 'zod';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { standardIds } from '../../core/air/correction.ts';
import { powerUnits, torqueUnits } from '../../core/units/units.ts';

/** What this browser remembers. Figures that must be reproducible stand in the address instead. */
const preferences = z.object({
  powerUnit: z.enum(powerUnits),
  torqueUnit: z.enum(torqueUnits),
  /** Used where the address names none. */
  standard: z.enum(standardIds),
  /** The two channels shown large while recording, beside engine and road speed. */
  largeChannels: z.tuple([z.string(), z.string()]),
  /** The cautions before the first run have been read on this machine. */
  cautionsRead: z.boolean(),
  /** What is heard while recording. */
  cues: z.enum(['off', 'beeps', 'spoken']),
});
type Preferences = z.infer<typeof preferences>;

const usual: Preferences = {
  powerUnit: 'kW',
  torqueUnit: 'N·m',
  standard: 'sae-j1349',
  largeChannels: ['lambda', 'intakeTemperature'],
  cautionsRead: false,
  cues: 'beeps',
};

/** The usual preferences with those that a browser kept, as far as they can be understood. */
export function mergedPreferences(kept: unknown): Preferences {
  const understood = Object.entries(kept !== null && typeof kept === 'object' ? kept : {}).filter(
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
