import { useHotkeys } from '@mantine/hooks';
import { useMemo, useRef, useState } from 'react';
import type { Job } from '../../../contract/records.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { axisWidth } from '../../charts/lane.tsx';
import { SpeedAxis } from '../../charts/speed-axis.tsx';
import classes from './compare-lanes.module.css';
import { GainLane } from './gain-lane.tsx';
import { PowerLane, TorqueLane } from './mean-lanes.tsx';
import { shownSetups, speedRange } from './shown-setups.ts';
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
  // Kept while the pointer moves, so that the lanes are not drawn anew under it.
  const shown = useMemo(() => shownSetups(job, figures, view), [job, figures, view]);
  const range = useMemo(() => speedRange(shown.map(({ figures: one }) => one.power.engineSpeedRpm)), [shown]);
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
