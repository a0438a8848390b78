import { useUnits } from '../../../units/use-own-units.tsx';
import type { Job, Setup } from '../../../../contract/job/records.ts';
import { isTurbocharged } from '../../../../core/job/is-boosted.ts';
import { correctionOf } from '../../../../core/air/correction.ts';
import type { SetupFigures } from '../../../../core/figures/pairs/setup-figures.ts';
import { interpolate } from '../../../../core/numerics/interpolation.ts';
import { convert } from '../../../../core/units/units.ts';
import type { LaneLine } from '../../../../core/scene/lane.ts';
import { Lane } from '../../../charts/lane.tsx';
import { niceRange } from '../../../../core/scene/nice-range.ts';
import { SpeedAxis } from '../../../charts/speed-axis.tsx';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { useLive } from '../../../state/live.ts';
import { useStandard } from '../../../job/use-standard.ts';
import { formatWhole, signed, formatTenths } from '../../../../core/wording/figures.ts';
import classes from './live-lanes.module.css';
import { useLiveCurve } from '../../../live/use-live-curve.ts';
import { engineTorqueNm } from '../../../../core/curve/engine-torque.ts';

interface LiveLanesProps {
  job: Job;
  setup: Setup;
  baseline: Setup;
  ghost: SetupFigures | undefined;
  /** Where the driver lifts. */
  liftRpm: number | undefined;
  /** The ghost is still being made. */
  pending: boolean;
}

/** Power and torque as they are made, over the baseline's ghost. */
export function LiveLanes({ job, setup, baseline, ghost, liftRpm, pending }: LiveLanesProps) {
  const air = useLive((state) => state.bay?.air ?? undefined);
  const standard = useStandard(job);
  const { power: powerUnit, torque: torqueUnit } = useUnits();
  const curve = useLiveCurve();
  const going = useLive((state) => state.bay?.recorder.state === 'recording' || state.bay?.recorder.state === 'armed');
  const { factor } = correctionOf(standard, air, 1, { turbocharged: isTurbocharged(job.car) ?? true });
  const colour = setupColour(setup.letter, setup.id === baseline.id);
  const power = curve.powerKw.map((kw) => kw * factor);
  const torque = power.map((kw, index) => engineTorqueNm(kw, curve.rpm[index]!));
  const range = rangeOf(ghost, curve.rpm, liftRpm);
  const lanes = [
    {
      name: 'Power',
      unit: `${powerUnit}, live, before smoothing`,
      values: power,
      ghost: ghost?.power,
      scale: (kw: number) => convert(kw, 'kW', powerUnit),
      usual: 100,
    },
    {
      name: 'Torque',
      unit: torqueUnit,
      values: torque,
      ghost: ghost?.torque,
      scale: (newtonMetres: number) => convert(newtonMetres, 'N·m', torqueUnit),
      usual: 200,
    },
  ];
  const at = curve.rpm.at(-1);
  return (
    <div className={classes.stack}>
      <div className={classes.lanes}>
        {lanes.map((lane) => {
          const lines: LaneLine[] = [];
          if (lane.ghost) {
            lines.push({
              id: 'ghost',
              x: lane.ghost.engineSpeedRpm,
              values: lane.ghost.values.map(lane.scale),
              colour: 'var(--ink)',
              width: 2,
              opacity: 0.42,
            });
          }
          lines.push({ id: 'live', x: curve.rpm, values: lane.values.map(lane.scale), colour, width: 3 });
          const heights = lines.flatMap((line) => Array.from(line.values));
          const values =
            heights.length > 0
              ? niceRange(Math.min(...heights), Math.max(...heights) * 1.04, 4)
              : { least: 0, most: lane.usual, step: lane.usual / 4 };
          const latest = lane.values.at(-1);
          const head =
            at !== undefined && latest !== undefined ? { x: at, value: lane.scale(latest), colour } : undefined;
          return (
            <div key={lane.name} className={classes.row}>
              <Lane
                name={lane.name}
                unit={lane.unit}
                lines={lines}
                range={range}
                values={values}
                decoration={{
                  head,
                  upright:
                    liftRpm !== undefined
                      ? {
                          x: liftRpm,
                          word: lane.name === 'Power' ? 'lift' : '',
                          colour: 'var(--stop)',
                        }
                      : undefined,
                }}
                text={
                  ghost
                    ? `${lane.name} of the baseline over engine speed${head ? ', and of the pull going on' : ''}.`
                    : `${lane.name} over engine speed; nothing recorded yet.`
                }
              />
              <LiveValue
                name={lane.name}
                value={going || lane.values.length === 0 ? head?.value : lane.scale(Math.max(...lane.values))}
                peak={!going}
                ghost={going ? ghostAt(lane.ghost, at, lane.scale) : undefined}
                colour={colour}
              />
            </div>
          );
        })}
      </div>
      <div className={classes.axis}>
        <SpeedAxis range={range} atRpm={undefined} bands={[]} />
      </div>
      {!ghost && !pending && curve.rpm.length === 0 && (
        <p className={classes.empty}>
          No baseline yet. The first runs of setup {baseline.letter} become the ghost that later ones are drawn over.
        </p>
      )}
    </div>
  );
}

function LiveValue({
  name,
  value,
  peak,
  ghost,
  colour,
}: {
  name: string;
  value: number | undefined;
  /** After the lift: the most there was. */
  peak: boolean;
  ghost: number | undefined;
  colour: string;
}) {
  if (value === undefined) return <div />;
  const difference = ghost === undefined ? undefined : value - ghost;
  return (
    <div className={classes.value} style={{ color: colour }}>
      <b data-testid={`live-${name.toLowerCase()}`}>{formatWhole(value)}</b>
      {peak && <span className="soft">peak</span>}
      {/* One moment's difference is no verdict, so it has no colour of one. */}
      {difference !== undefined && <span className="soft">{signed(formatTenths(difference))}</span>}
    </div>
  );
}

function ghostAt(
  ghost: SetupFigures['power'] | undefined,
  rpm: number | undefined,
  scale: (value: number) => number,
): number | undefined {
  if (
    !ghost ||
    rpm === undefined ||
    rpm < ghost.engineSpeedRpm[0]! ||
    rpm > ghost.engineSpeedRpm[ghost.engineSpeedRpm.length - 1]!
  )
    return undefined;
  return scale(interpolate(ghost.engineSpeedRpm, ghost.values, rpm));
}

function rangeOf(ghost: SetupFigures | undefined, rpm: readonly number[], liftRpm = 0): readonly [number, number] {
  const least = Math.min(ghost?.power.engineSpeedRpm[0] ?? Infinity, rpm[0] ?? Infinity);
  const most = Math.max(ghost?.power.engineSpeedRpm.at(-1) ?? 0, rpm.at(-1) ?? 0);
  if (most === 0) return [1000, Math.max(7000, Math.ceil(liftRpm / 500) * 500)];
  const from = Math.floor((least - 100) / 500) * 500;
  return [from, Math.max(Math.ceil((Math.max(most, liftRpm) + 100) / 500) * 500, ghost ? 0 : from + 4000)];
}
