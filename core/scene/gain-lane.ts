import { sampleAt } from '../numerics/sample-at.ts';
import { phrasesText } from '../wording/gain-sentence.ts';
import type { ClearStretch } from '../comparison/clear-stretches.ts';
import { medianOf } from '../numerics/quantile.ts';
import { convert } from '../units/units.ts';
import type { LaneLine } from './lane.ts';
import { niceRange } from './nice-range.ts';
import { formatRpm, formatTenths, scaleNote, signed } from '../wording/figures.ts';
import type { LaneSource } from './mean-lanes.ts';
import { extentOf, type EmptyLane, type LaneContent } from './scene.ts';

function inOneOf(stretches: readonly ClearStretch[], rpm: number): boolean {
  return stretches.some((stretch) => rpm >= stretch.fromRpm && rpm <= stretch.toRpm);
}

/** Test less baseline at each speed, with the band that holds at all speeds at once; or why there is none. */
export function gainLane({ figures, view, shown }: LaneSource): LaneContent | EmptyLane {
  const { comparison, noComparison } = figures;
  if (!comparison) return { id: 'gain', why: noComparison ? 'No gain to draw.' : '' };
  const { power, withheld, sentence } = comparison;
  const top = shown[shown.length - 1]!;
  const scale = (kw: number) => convert(kw, 'kW', view.units.power);
  const judged = !Number.isNaN(power.gainHalfWidth[0]);
  const bound = (sign: 1 | -1) =>
    power.gain.map((kw, index) => scale(kw + sign * sampleAt(power.gainHalfWidth, index)));
  // A gain is one at the same engine speed; it stands where the test reached that speed.
  const x = top.place.xs(power.engineSpeedRpm);
  const [low, high, values] = [bound(-1), bound(1), power.gain.map(scale)];
  const edge = (id: string, edgeValues: Float64Array): LaneLine => ({
    id,
    x,
    values: edgeValues,
    colour: 'var(--soft)',
    width: 1,
    opacity: 0.8,
    dash: [2, 3],
  });
  const gain: LaneLine = { id: 'gain', x, values, colour: top.colour, width: 2.2 };
  // A band wider than the gain is cut off rather than let it flatten the line.
  const spread = judged ? scale(2.5 * medianOf(power.gainHalfWidth)) : 0;
  // Nothing is coloured that scatter could have made.
  const isClear = (rpm: number) => !withheld && inOneOf(power.clearStretches, rpm);
  const clear = values.map((value, index) => (isClear(sampleAt(power.engineSpeedRpm, index)) ? value : 0));
  const other = shown.find((line) => line.setup.id === view.against.id && !line.isTest)?.name ?? view.against.letter;
  // The figures lead with the drift taken out; a line at each speed cannot.
  const drifts = power.ranges.some(({ difference }) => difference.withoutDrift) ? ', drift not taken out' : '';
  return {
    id: 'gain',
    lines: judged ? [edge('bound1', high), edge('bound-1', low), gain] : [gain],
    readings: [
      {
        id: 'gain',
        label:
          view.runs || view.againstRuns || view.elsewhere ? 'gain' : `${view.test.letter} − ${view.against.letter}`,
        endName: undefined,
        colour: 'var(--soft)',
        colourAt: (rpm) => {
          if (!isClear(rpm)) return 'var(--soft)';
          const stretch = power.clearStretches.find(({ fromRpm, toRpm }) => rpm >= fromRpm && rpm <= toRpm);
          return stretch?.verdict === 'loss' ? 'var(--loss)' : 'var(--gain)';
        },
        place: top.place,
        rpm: power.engineSpeedRpm,
        values,
        write: (value) => signed(formatTenths(value)),
      },
    ],
    marks: [],
    decoration: {
      envelope: judged ? { x, low, high, colour: 'var(--ink)' } : undefined,
      gainArea: { x, values: clear, gain: 'var(--gain)', loss: 'var(--loss)' },
      zeroColour: 'var(--ink)',
    },
    valuesWithin: (range) => {
      const [least, most] = extentOf([gain], range);
      const reach = Math.max(Math.abs(least), Math.abs(most), spread);
      return niceRange(
        Math.max(-reach, Math.min(0, least - spread)),
        Math.min(reach + spread, Math.max(0, most + spread)),
        4,
        scale(1),
      );
    },
    name: 'Gain',
    readingUnit: `${view.units.power}${scaleNote(figures)}`,
    unit: () =>
      `${view.units.power}, ${top.name} less ${other}${drifts}${judged ? '; grey: 95 % uncertainty, all speeds at once' : '; no interval'}`,
    text: `Gain of ${view.test.letter} over ${view.against.letter} from ${formatRpm(power.fromRpm)} to ${formatRpm(power.toRpm)} rpm. ${phrasesText(sentence, view.units)}`,
  };
}
