/** What the tables of controllers are laid out over. */
export const fuellingAxisChannels = [
  'engineSpeed',
  'manifoldPressure',
  'airMassPerCycle',
  'throttle',
  'boost',
  'airFlowSensor',
] as const;
export type FuellingAxisChannel = (typeof fuellingAxisChannels)[number];

/** One axis of a table: its breakpoints rise, in the channel's unit (air mass: g a cycle of the whole engine). */
export interface FuellingAxis {
  channel: FuellingAxisChannel;
  breakpoints: readonly number[];
}

/** Engine speed (or an air-flow sensor) across and a load down, or one axis only. */
export interface FuellingAxes {
  across: FuellingAxis;
  down: FuellingAxis | null;
}

/** What the fuel of each cell was multiplied by. */
export interface FuelMultipliers extends FuellingAxes {
  /** In rows. */
  multipliers: readonly number[];
}
