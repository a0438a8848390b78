import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { formatPower, formatTorque, scaleNote, signed } from '../../ui/figures.ts';
import type { Shown } from './shown-setups.ts';
import type { CompareView } from './view.ts';

/** The readings under the crosshair as lines for a spreadsheet: tabs between cells, units in the head. */
export function readingsAt(
  shown: readonly Shown[],
  { comparison, estimate }: JobFigures,
  view: CompareView,
  atRpm: number,
): string {
  const at = (curve: { engineSpeedRpm: Float64Array; values: Float64Array }) =>
    atRpm < curve.engineSpeedRpm[0]! || atRpm > curve.engineSpeedRpm.at(-1)!
      ? undefined
      : interpolate(curve.engineSpeedRpm, curve.values, atRpm);
  const lines = shown.map(({ name, figures }) => {
    const [power, torque] = [at(figures.power), at(figures.torque)];
    return [
      name,
      String(atRpm),
      power === undefined ? '' : formatPower(power, view.powerUnit),
      torque === undefined ? '' : formatTorque(torque, view.torqueUnit),
    ];
  });
  const gain = comparison && at({ engineSpeedRpm: comparison.power.engineSpeedRpm, values: comparison.power.gain });
  if (gain !== undefined)
    lines.push([
      `${view.test.letter} − ${view.against.letter}`,
      String(atRpm),
      signed(formatPower(gain, view.powerUnit)),
      '',
    ]);
  const scale = scaleNote({ estimate });
  return [
    ['setup', 'engine speed [rpm]', `power [${view.powerUnit}${scale}]`, `torque [${view.torqueUnit}${scale}]`],
    ...lines,
  ]
    .map((cells) => cells.join('\t'))
    .join('\n');
}
