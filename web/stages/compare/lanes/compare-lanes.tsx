import { useMemo } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { LaneStack } from '../../../charts/lane-stack.tsx';
import { PlainAxis } from '../../../charts/plain-axis.tsx';
import { readingsText } from '../../../../core/scene/readings.ts';
import { framed, type SceneContent } from '../../../../core/scene/scene.ts';
import { SpeedAxis } from '../../../charts/speed-axis.tsx';
import { zoomedRanges } from '../../../../core/scene/compare-scene.ts';
import { laneShare } from '../../../../core/scene/lane-list.ts';
import type { ChangeView } from '../view/view.ts';
import { bandWords, type CompareView } from '../view/view-address.ts';
import classes from './compare-lanes.module.css';

interface CompareLanesProps {
  scene: SceneContent;
  job: Job;
  view: CompareView;
  change: ChangeView;
  /** Shown large: the arrow keys belong to the steps. */
  presenting?: boolean;
}

/** The crosshair and a zoom stand on whole tens, rpm. */
const tens = (rpm: number) => Math.round(rpm / 10) * 10;

/** The scene over one axis, under one crosshair. Where things stand is kept in engine speeds, whatever the axis. */
export function CompareLanes({ scene: content, job, view, change, presenting = false }: CompareLanesProps) {
  const { place, whole, wholeRpm, restRpm, bands: onAxis } = content;
  const { range } = useMemo(() => zoomedRanges(content, view.zoom), [content, view.zoom]);
  const scene = useMemo(() => framed(content, range), [content, range]);
  return (
    <div className={classes.shown}>
      <LaneStack
        lanes={scene.lanes}
        shareOf={laneShare}
        whole={whole}
        range={range}
        at={view.atRpm === undefined ? undefined : place.x(view.atRpm)}
        rest={restRpm === undefined ? undefined : place.x(restRpm)}
        snapped={(x) => place.x(tens(place.rpm(x)))}
        onAt={(x) => change({ at: x === undefined ? undefined : tens(place.rpm(x)) })}
        onStep={(steps, from) =>
          change((at) => ({
            at: Math.min(wholeRpm[1], Math.max(wholeRpm[0], (at ?? tens(place.rpm(from))) + 10 * steps)),
          }))
        }
        onZoom={(to) => change({ zoom: to && to.map((x) => tens(place.rpm(x))).join('-') })}
        copied={(x) => {
          const rpm = tens(place.rpm(x));
          return { words: `${rpm.toLocaleString('en-GB')} rpm`, text: readingsText(scene, rpm, x) };
        }}
        arrowsTaken={presenting}
        axis={(crosshair) =>
          view.axis === 'engine-speed' ? (
            <SpeedAxis
              range={range}
              atRpm={crosshair}
              bands={view.bands}
              onBand={(dragged) => change({ band: bandWords(dragged ? [dragged] : [], job) })}
            />
          ) : (
            <PlainAxis range={range} told={scene.told} at={crosshair} bands={onAxis} />
          )
        }
      />
      {presenting && view.zoom && (
        <button className={classes.whole} onClick={() => change({ zoom: undefined })}>
          whole range <kbd>0</kbd>
        </button>
      )}
    </div>
  );
}
