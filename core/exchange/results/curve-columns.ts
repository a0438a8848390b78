import type { JobFigures } from '../../figures/job-figures.ts';
import type { Shown } from '../../scene/shown-setups.ts';
import { convert } from '../../units/units.ts';
import type { Units } from '../../units/told-units.ts';
import type { CurveColumn } from './curves-csv.ts';

/**
 * Curves as they are shown, and the gain of the compared pair with its
 * interval, as columns of a file in their reader's units.
 * @param pair what the gain is called: `B less A`
 */
export function curveColumns(
  { comparison }: Pick<JobFigures, 'comparison'>,
  shown: readonly Shown[],
  pair: string,
  units: Pick<Units, 'power' | 'torque'>,
): CurveColumn[] {
  const kw = (values: Float64Array) => values.map((value) => convert(value, 'kW', units.power));
  const nm = (values: Float64Array) => values.map((value) => convert(value, 'N·m', units.torque));
  const curves = shown.flatMap(({ name, figures: { power, torque } }): CurveColumn[] => [
    { name: `power ${name}`, unit: units.power, engineSpeedRpm: power.engineSpeedRpm, values: kw(power.values) },
    { name: `torque ${name}`, unit: units.torque, engineSpeedRpm: torque.engineSpeedRpm, values: nm(torque.values) },
  ]);
  if (!comparison) return curves;
  const { engineSpeedRpm, gain, gainHalfWidth } = comparison.power;
  return [
    ...curves,
    { name: `gain ${pair}`, unit: units.power, engineSpeedRpm, values: kw(gain) },
    {
      name: `gain ${pair}, 95 % half width at all speeds`,
      unit: units.power,
      engineSpeedRpm,
      values: kw(gainHalfWidth),
    },
  ];
}
