import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { StandardId } from '../../core/air/correction.ts';
import type { PowerUnit, TorqueUnit } from '../../core/units/units.ts';

interface Preferences {
  powerUnit: PowerUnit;
  torqueUnit: TorqueUnit;
  /** Used where the address names none. */
  standard: StandardId;
  /** The two channels shown large while recording, beside engine and road speed. */
  largeChannels: [string, string];
  /** The cautions before the first run have been read on this machine. */
  cautionsRead: boolean;
}

/** What this browser remembers. Figures that must be reproducible stand in the address instead. */
export const usePreferences = create<Preferences>()(
  persist<Preferences>(
    () => ({
      powerUnit: 'kW',
      torqueUnit: 'N·m',
      standard: 'sae-j1349',
      largeChannels: ['lambda', 'intakeTemperature'],
      cautionsRead: false,
    }),
    {
      name: 'suvok-preferences',
    },
  ),
);

/** Keeps a choice for the next time, and makes it. */
export function remember(choice: Partial<Preferences>, make: () => void): void {
  usePreferences.setState(choice);
  make();
}
