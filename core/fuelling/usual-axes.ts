import { quantileOf } from '../numerics/quantile.ts';
import {
  axisReadings,
  type FuellingAxes,
  type FuellingAxis,
  type FuellingAxisChannel,
  type PartLoadLog,
} from './axes.ts';

/** Steps of breakpoints as tables have them, by channel. */
const steps: Record<FuellingAxisChannel, number> = {
  engineSpeed: 500,
  manifoldPressure: 15,
  airMassPerCycle: 0.1,
  throttle: 10,
  boost: 20,
  airFlowSensor: 0.5,
};
const mostCells = 10;
/** So much at either end is passing through. */
const passing = 0.02;

/** Axes for a vehicle that nobody laid a table out for: engine speed by what load the log has, over what was driven. */
export function usualAxes(log: PartLoadLog): FuellingAxes {
  const load = (['manifoldPressure', 'airMassPerCycle', 'throttle'] as const).find((channel) =>
    axisReadings(log, channel),
  );
  const across = axisOver(log, 'engineSpeed');
  return { across, down: load ? axisOver(log, load) : null };
}

function axisOver(log: PartLoadLog, channel: FuellingAxisChannel): FuellingAxis {
  const readings = (axisReadings(log, channel) ?? new Float64Array()).filter((value) => Number.isFinite(value));
  const [least, most] =
    readings.length > 0 ? [quantileOf(readings, passing), quantileOf(readings, 1 - passing)] : [0, 0];
  let step = steps[channel];
  while ((most - least) / step > mostCells) step *= 2;
  const first = Math.floor(least / step + 0.25);
  const last = Math.max(first + 1, Math.ceil(most / step - 0.25));
  return {
    channel,
    breakpoints: Array.from({ length: last - first + 1 }, (_, at) => Number(((first + at) * step).toFixed(3))),
  };
}
