import { useHotkeys } from '@mantine/hooks';
import { useRef, useState } from 'react';
import type { Job, Setup } from '../../../contract/records.ts';
import type { JobFigures, SetupFigures } from '../../../core/gain/job-figures.ts';
import { interpolate } from '../../../core/recording/search.ts';
import { convert } from '../../../core/units/units.ts';
import { Gutter, type GutterValue } from '../../charts/gutter.tsx';
import { axisWidth, Lane, type LaneLine } from '../../charts/lane.tsx';
import { niceRange } from '../../charts/nice-range.ts';
import { SpeedAxis } from '../../charts/speed-axis.tsx';
import { setupColour, setupDash } from '../../setups/setup-colour.ts';
import { formatPower, formatRpm, formatTorque, signed } from '../../ui/figures.ts';
import classes from './compare-lanes.module.css';
import type { ChangeView, CompareView } from './view.ts';

interface CompareLanesProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

const gutterWidth = 108;

/** Power, torque and gain over one engine-speed axis, under one crosshair. */
export function CompareLanes({ job, figures, view, change }: CompareLanesProps) {
  const plot = useRef<HTMLDivElement>(null);
  const [hoverRpm, setHoverRpm] = useState<number>();
  const shown = shownSetups(job, figures, view);
  const range = speedRange(shown.map(({ figures: one }) => one.power.engineSpeedRpm));
  const atRpm = hoverRpm ?? view.atRpm;
  const rpmAt = (clientX: number) => {
    const box = plot.current!.getBoundingClientRect();
    const share = (clientX - box.left - axisWidth) / (box.width - axisWidth - gutterWidth);
    return share < 0 || share > 1 ? undefined : Math.round((range[0] + share * (range[1] - range[0])) / 10) * 10;
  };
  const middle = Math.round((range[0] + range[1]) / 200) * 100;
  const step = (rpm: number) => () =>
    change((at) => ({ at: Math.min(range[1], Math.max(range[0], (at ?? middle) + rpm)) }));
  useHotkeys([
    ['ArrowRight', step(10)],
    ['ArrowLeft', step(-10)],
    ['shift+ArrowRight', step(100)],
    ['shift+ArrowLeft', step(-100)],
    ['Escape', () => change({ at: undefined })],
  ]);
  if (shown.length === 0) return null;
  const common = { range, atRpm, view, shown };
  return (
    <div className={classes.stack}>
      <div
        ref={plot}
        className={classes.plot}
        onPointerMove={(event) => setHoverRpm(rpmAt(event.clientX))}
        onPointerLeave={() => setHoverRpm(undefined)}
        onClick={(event) => change({ at: rpmAt(event.clientX) ?? view.atRpm })}
      >
        <PowerLane {...common} figures={figures} />
        <TorqueLane {...common} figures={figures} />
        <GainLane {...common} figures={figures} />
        {atRpm !== undefined && (
          <div
            className={classes.crosshair}
            style={{
              left: `calc(${axisWidth}px + (100% - ${axisWidth + gutterWidth}px) * ${(atRpm - range[0]) / (range[1] - range[0])})`,
            }}
          />
        )}
      </div>
      <div style={{ paddingRight: gutterWidth }}>
        <SpeedAxis range={range} atRpm={atRpm} band={view.band} onBand={(band) => change({ band: band?.join('-') })} />
      </div>
    </div>
  );
}

interface Shown {
  setup: Setup;
  figures: SetupFigures;
  colour: string;
  isTest: boolean;
}

/** The setup compared, the one it is compared with, and the baseline; the test last, so that it lies on top. */
function shownSetups(job: Job, figures: JobFigures, view: CompareView): Shown[] {
  return job.setups
    .filter((setup) => [view.test.id, view.against.id, view.baseline.id].includes(setup.id))
    .flatMap((setup) => {
      const one = figures.setups.find((candidate) => candidate.setupId === setup.id);
      const isTest = setup.id === view.test.id;
      return one
        ? [{ setup, figures: one, colour: setupColour(setup.letter, setup.id === view.baseline.id), isTest }]
        : [];
    })
    .sort((a, b) => Number(a.isTest) - Number(b.isTest));
}

function speedRange(speeds: Float64Array[]): readonly [number, number] {
  const least = Math.min(...speeds.map((values) => values[0]!));
  const most = Math.max(...speeds.map((values) => values[values.length - 1]!));
  return [Math.floor((least - 50) / 500) * 500, Math.ceil((most + 50) / 500) * 500];
}

interface LaneCommon {
  range: readonly [number, number];
  atRpm: number | undefined;
  view: CompareView;
  shown: Shown[];
  figures: JobFigures;
}

const bandOf = (view: CompareView) => (view.band ? { fromRpm: view.band[0], toRpm: view.band[1] } : undefined);

function linesOf(
  { shown, figures, view }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
): LaneLine[] {
  const single = figures.runs
    .filter((run) => run.setupId === view.test.id && run.counted)
    .map((run) => ({
      id: `run-${run.id}`,
      rpm: run.curve.engineSpeedRpm,
      values: (quantity === 'power' ? run.curve.powerKw : run.curve.torqueNm).map(scale),
      colour: shown.at(-1)!.colour,
      width: 1,
      opacity: 0.4,
    }));
  const means = shown.map(({ setup, figures: one, colour, isTest }) => ({
    id: `setup-${setup.id}`,
    rpm: one[quantity].engineSpeedRpm,
    values: one[quantity].values.map(scale),
    colour,
    width: isTest ? 2.6 : 2,
    dash: setupDash(setup.letter),
  }));
  return [...single, ...means];
}

function meansAt(
  { shown, atRpm }: LaneCommon,
  quantity: 'power' | 'torque',
  scale: (value: number) => number,
  write: (value: number) => string,
): GutterValue[] {
  if (atRpm === undefined) return [];
  return shown.flatMap(({ setup, figures: one, colour }) => {
    const { engineSpeedRpm, values } = one[quantity];
    if (atRpm < engineSpeedRpm[0]! || atRpm > engineSpeedRpm[engineSpeedRpm.length - 1]!) return [];
    const value = interpolate(engineSpeedRpm, values, atRpm);
    return [{ id: setup.letter, label: `${setup.letter} mean`, text: write(value), value: scale(value), colour }];
  });
}

function extent(lines: readonly LaneLine[]): [number, number] {
  let least = Infinity;
  let most = -Infinity;
  for (const { values } of lines) {
    for (let index = 0; index < values.length; index++) {
      least = Math.min(least, values[index]!);
      most = Math.max(most, values[index]!);
    }
  }
  return [least, most];
}

function PowerLane(lane: LaneCommon) {
  const { view, figures, shown, range } = lane;
  const scale = (kw: number) => convert(kw, 'kW', view.powerUnit);
  const lines = linesOf(lane, 'power', scale);
  const [least, most] = extent(lines);
  const values = niceRange(least, most + (most - least) * 0.09, 5);
  const top = shown.at(-1)!;
  const peak = peakOfMean(top.figures);
  const { comparison } = figures;
  const against = shown.find(({ setup }) => setup.id === view.against.id);
  return (
    <div className={classes.row}>
      <Lane
        name="Power"
        unit={`${view.powerUnit}${axisNote(values.least)}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{
          band: bandOf(view),
          peak: {
            rpm: peak.rpm,
            value: scale(peak.kw),
            text: `${formatPower(peak.kw, view.powerUnit)} at ${formatRpm(peak.rpm)}`,
            colour: top.colour,
          },
          envelope:
            comparison && against && !Number.isNaN(comparison.power.repeatability[0]!)
              ? {
                  rpm: comparison.power.engineSpeedRpm,
                  low: comparison.power.baseline.map((kw, index) => scale(kw - comparison.power.repeatability[index]!)),
                  high: comparison.power.baseline.map((kw, index) =>
                    scale(kw + comparison.power.repeatability[index]!),
                  ),
                  colour: 'var(--ink)',
                }
              : undefined,
        }}
        text={`Power of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed; ${top.setup.letter} peaks at ${formatPower(peak.kw, view.powerUnit)} ${view.powerUnit} at ${formatRpm(peak.rpm)} rpm.`}
      />
      <Gutter range={values} values={meansAt(lane, 'power', scale, (kw) => formatPower(kw, view.powerUnit))} />
    </div>
  );
}

function axisNote(least: number): string {
  return least === 0 ? '' : `; axis from ${least}`;
}

function peakOfMean({ power }: SetupFigures): { rpm: number; kw: number } {
  let top = 0;
  power.values.forEach((value, index) => {
    if (value > power.values[top]!) top = index;
  });
  return { rpm: power.engineSpeedRpm[top]!, kw: power.values[top]! };
}

function TorqueLane(lane: LaneCommon) {
  const { view, range, shown } = lane;
  const scale = (newtonMetres: number) => convert(newtonMetres, 'N·m', view.torqueUnit);
  const lines = linesOf(lane, 'torque', scale);
  const values = niceRange(...extent(lines), 4);
  return (
    <div className={classes.row}>
      <Lane
        name="Torque"
        unit={`${view.torqueUnit}, engine-referred${axisNote(values.least)}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{ band: bandOf(view) }}
        text={`Torque of ${shown.map(({ setup }) => setup.letter).join(', ')} over engine speed, in ${view.torqueUnit}.`}
      />
      <Gutter range={values} values={meansAt(lane, 'torque', scale, (value) => formatTorque(value, view.torqueUnit))} />
    </div>
  );
}

function GainLane({ figures, view, range, atRpm, shown }: LaneCommon) {
  const { comparison } = figures;
  const unit = view.powerUnit;
  const pair = `${view.test.letter} less ${view.against.letter}`;
  if (!comparison) {
    return (
      <div className={classes.row}>
        <p className={classes.noGain}>{figures.noComparison}</p>
      </div>
    );
  }
  const { power } = comparison;
  const scale = (kw: number) => convert(kw, 'kW', unit);
  const judged = !Number.isNaN(power.gainHalfWidth[0]!);
  const bound = (sign: 1 | -1): LaneLine => ({
    id: `bound${sign}`,
    rpm: power.engineSpeedRpm,
    values: power.gain.map((kw, index) => scale(kw + sign * power.gainHalfWidth[index]!)),
    colour: 'var(--soft)',
    width: 1,
    opacity: 0.8,
    dash: [2, 3],
  });
  const gain: LaneLine = {
    id: 'gain',
    rpm: power.engineSpeedRpm,
    values: power.gain.map(scale),
    colour: shown.at(-1)!.colour,
    width: 2.2,
  };
  const lines = judged ? [bound(1), bound(-1), gain] : [gain];
  const spread = judged ? scale(4 * Math.max(...power.gainHalfWidth)) : 0;
  const [least, most] = extent(lines);
  const values = niceRange(Math.min(0, least), Math.max(0, most), 4, Math.max(spread, scale(1)));
  const inside = atRpm !== undefined && atRpm >= power.fromRpm && atRpm <= power.toRpm;
  const value = inside ? interpolate(power.engineSpeedRpm, power.gain, atRpm) : NaN;
  return (
    <div className={classes.row}>
      <Lane
        name="Gain"
        unit={`${unit}, ${pair}${judged ? '; dotted: 95 % at each speed' : '; one run a side, no interval'}`}
        lines={lines}
        range={range}
        values={values}
        decoration={{
          band: bandOf(view),
          gainArea: { rpm: power.engineSpeedRpm, values: gain.values, gain: 'var(--gain)', loss: 'var(--loss)' },
          zeroColour: 'var(--ink)',
        }}
        text={`Gain of ${view.test.letter} over ${view.against.letter} from ${formatRpm(power.fromRpm)} to ${formatRpm(power.toRpm)} rpm. ${comparison.sentence.map((phrase) => phrase.text).join('')}`}
      />
      <Gutter
        range={values}
        values={[
          {
            id: 'gain',
            label: `${view.test.letter} − ${view.against.letter}`,
            text: signed(formatPower(value, unit)),
            value: scale(value),
            colour: value < 0 ? 'var(--loss)' : 'var(--gain)',
          },
        ]}
      />
    </div>
  );
}
