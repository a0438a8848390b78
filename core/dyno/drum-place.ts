/** Where a drum or hub stands under the car, where a dyno has several. */
export const drumPlaces = [
  'left',
  'right',
  'front',
  'rear',
  'frontLeft',
  'frontRight',
  'rearLeft',
  'rearRight',
] as const;
export type DrumPlace = (typeof drumPlaces)[number];
