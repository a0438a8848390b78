import { CloseButton } from '@mantine/core';
import { useRef, useState } from 'react';
import { formatRpm, formatWhole } from '../../core/wording/figures.ts';
import { BandHandle } from './band-handle.tsx';
import { axisWidth } from './lane.tsx';
import { axisStep } from '../../core/scene/axis-step.ts';
import classes from './speed-axis.module.css';

export interface AxisBand {
  fromRpm: number;
  toRpm: number;
  /** What it is called. */
  name?: string | undefined;
}

interface SpeedAxisProps {
  range: readonly [number, number];
  atRpm: number | undefined;
  /** Bands that are judged; one by itself can be taken by its ends. */
  bands: readonly AxisBand[];
  /** Called with a band dragged on the axis, or undefined to take all away. Absent: the axis only shows. */
  onBand?: (band: AxisBand | undefined) => void;
}

const leastBandRpm = 100;

/** The engine-speed axis under the lanes. A drag along it marks the band that matters. */
export function SpeedAxis({ range, atRpm, bands, onBand: onBandOf }: SpeedAxisProps) {
  const [only] = bands;
  const band = only && bands.length === 1 ? ([only.fromRpm, only.toRpm] as const) : undefined;
  const onBand =
    onBandOf && ((to: readonly [number, number] | undefined) => onBandOf(to && { fromRpm: to[0], toRpm: to[1] }));
  const strip = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<readonly [number, number]>();
  const share = (rpm: number) => `${((rpm - range[0]) / (range[1] - range[0])) * 100}%`;
  // A band may go on beyond what is drawn.
  const within = (rpm: number) => Math.min(range[1], Math.max(range[0], rpm));
  const bandStyle = (from: number, to: number) => ({
    left: share(within(from)),
    right: `calc(100% - ${share(within(to))})`,
  });
  const ticks: number[] = [];
  const step = axisStep(range);
  for (let rpm = Math.ceil(range[0] / step) * step; rpm <= range[1]; rpm += step) ticks.push(rpm);
  const rpmAt = (clientX: number) => {
    const box = strip.current?.getBoundingClientRect();
    if (!box) return range[0];
    const rpm = range[0] + ((clientX - box.left) / box.width) * (range[1] - range[0]);
    return Math.round(Math.min(range[1], Math.max(range[0], rpm)) / 50) * 50;
  };
  const shown = dragged ? ordered(dragged) : band;
  const finish = () => {
    if (dragged && Math.abs(dragged[1] - dragged[0]) >= leastBandRpm) onBand?.(ordered(dragged));
    setDragged(undefined);
  };
  return (
    <div className={onBand ? classes.axis : classes.low} style={{ paddingLeft: axisWidth }}>
      <div
        ref={strip}
        className={onBand ? classes.dragged : classes.strip}
        title={onBand && 'Drag along the axis to mark the band that matters'}
        onPointerDown={(event) => {
          if (!onBand || event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          setDragged([rpmAt(event.clientX), rpmAt(event.clientX)]);
        }}
        onPointerMove={(event) => dragged && setDragged([dragged[0], rpmAt(event.clientX)])}
        onPointerUp={finish}
        onPointerCancel={() => setDragged(undefined)}
      >
        {ticks.map((rpm) => (
          <span
            key={rpm}
            className={classes.tick}
            style={{ left: share(rpm) }}
            data-hidden={atRpm !== undefined && Math.abs(rpm - atRpm) < (range[1] - range[0]) * 0.1 ? true : undefined}
          >
            {formatWhole(rpm)}
            {rpm === ticks.at(-1) && <i> rpm</i>}
          </span>
        ))}
        {bands.length > 1 &&
          bands.map(({ fromRpm, toRpm }) => (
            <span key={`${fromRpm}-${toRpm}`} className={classes.band} style={bandStyle(fromRpm, toRpm)} />
          ))}
        {shown && <span className={classes.band} style={bandStyle(shown[0], shown[1])} />}
        {shown &&
          onBand &&
          band &&
          ([0, 1] as const).map((end) => (
            <BandHandle
              key={end}
              name={end === 0 ? 'Lower end of the band' : 'Upper end of the band'}
              rpm={shown[end]}
              range={range}
              at={share(within(shown[end]))}
              onGrab={(event) => {
                event.stopPropagation();
                strip.current?.setPointerCapture(event.pointerId);
                setDragged([shown[1 - end]!, shown[end]]);
              }}
              onMove={(rpm) => {
                const moved = ordered([shown[1 - end]!, rpm]);
                if (moved[1] - moved[0] >= leastBandRpm) onBand(moved);
              }}
            />
          ))}
        {atRpm !== undefined && (
          <span className={classes.crosshair} style={{ left: share(atRpm) }}>
            {formatRpm(atRpm)} rpm
          </span>
        )}
      </div>
      {!dragged &&
        bands.map(({ fromRpm, toRpm, name }, at) => (
          <div
            key={`${fromRpm}-${toRpm}`}
            className={classes.bandName}
            title={name}
            style={{
              left: `calc(${axisWidth}px + (100% - ${axisWidth}px) * ${((within(fromRpm) + within(toRpm)) / 2 - range[0]) / (range[1] - range[0])})`,
            }}
          >
            {!isUnderAnother(bands, at, range) && (name ?? 'band')}
            {onBand && at === bands.length - 1 && (
              <CloseButton
                size={20}
                aria-label={bands.length > 1 ? 'Take the bands away' : 'Take the band away'}
                onClick={() => onBand(undefined)}
              />
            )}
          </div>
        ))}
    </div>
  );
}

/** Names nearer together than this share of the axis would lie on one another. */
const apartShare = 0.13;

function isUnderAnother(bands: readonly AxisBand[], at: number, [from, to]: readonly [number, number]): boolean {
  const middle = ({ fromRpm, toRpm }: AxisBand) => (fromRpm + toRpm) / 2;
  return bands.slice(0, at).some((before) => Math.abs(middle(before) - middle(bands[at]!)) < apartShare * (to - from));
}

function ordered([a, b]: readonly [number, number]): readonly [number, number] {
  return a < b ? [a, b] : [b, a];
}
