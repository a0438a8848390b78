import { toldAxis } from './lane-axis.ts';
import { peakOf } from '../curve/peak.ts';
import { figureLanes, groupingOf } from './lane-list.ts';
import { channelLane, type LoggedSide } from './channel-lane.ts';
import { drumLane } from './drum-lane.ts';
import { gainLane } from './gain-lane.ts';
import { powerLane, torqueLane, type LaneSource } from './mean-lanes.ts';
import { speedRange, wholeOnAxis, zoomedWithin } from './scene-range.ts';
import { framed, type AxisRange, type EmptyLane, type LaneContent, type Scene, type SceneContent } from './scene.ts';

/** @returns undefined where no line is to be shown */
export function compareScene(source: LaneSource, sides: readonly LoggedSide[]): SceneContent | undefined {
  const { shown, view } = source;
  const top = shown.at(-1);
  if (!top) return undefined;
  const lanes: readonly string[] = view.presenting ? figureLanes : view.lanes;
  const wholeRpm = speedRange(shown.map(({ figures }) => figures.power.engineSpeedRpm));
  return {
    axis: view.axis,
    told: toldAxis(view.axis, view.units),
    lanes: lanes.map((lane) => laneNamed(lane, source, sides)),
    place: top.place,
    bands: view.bands.map(({ fromRpm, toRpm }) => ({ from: top.place.x(fromRpm), to: top.place.x(toRpm) })),
    wholeRpm,
    restRpm: Math.round(peakOf(top.figures.power.engineSpeedRpm, top.figures.power.values).rpm / 10) * 10,
    whole: wholeOnAxis(
      wholeRpm,
      shown.map(({ place }) => place),
      view.axis,
    ),
  };
}

function laneNamed(lane: string, source: LaneSource, sides: readonly LoggedSide[]): LaneContent | EmptyLane {
  switch (lane) {
    case 'power':
      return powerLane(source);
    case 'torque':
      return torqueLane(source);
    case 'gain':
      return gainLane(source);
    default: {
      const grouping = groupingOf(lane);
      return grouping ? drumLane(lane, grouping, source) : channelLane(lane, sides, source.view);
    }
  }
}

/** The part of a scene that an address zooms to: on the axis, and in engine speeds. */
export function zoomedRanges(
  { place, whole, wholeRpm }: SceneContent,
  zoom: AxisRange | undefined,
): { range: AxisRange; rangeRpm: AxisRange } {
  const rangeRpm = zoomedWithin(zoom, wholeRpm);
  return { rangeRpm, range: rangeRpm === wholeRpm ? whole : [place.x(rangeRpm[0]), place.x(rangeRpm[1])] };
}

/** What is looked at, as the address zooms it. */
export function sceneAt(content: SceneContent, zoom: AxisRange | undefined): Scene {
  return framed(content, zoomedRanges(content, zoom).range);
}
