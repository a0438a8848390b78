import type { PicturePlace } from '../../../../../core/exchange/borrowed/traced-curve.ts';

/** A place of an axis that was pressed, and what the print says there. */
export interface Mark {
  place: PicturePlace | undefined;
  figure: number | string;
}

/** Two places of each axis, in the order in which they are asked for. */
export const steps = [
  { axis: 'rpm', label: 'Low speed', unit: 'rpm', press: 'a low engine speed on its axis' },
  { axis: 'rpm', label: 'High speed', unit: 'rpm', press: 'a high engine speed on its axis' },
  { axis: 'value', label: 'Low value', unit: undefined, press: 'a low value on the upright axis' },
  { axis: 'value', label: 'High value', unit: undefined, press: 'a high value on the upright axis' },
] as const;
