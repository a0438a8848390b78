import { sampleAt } from '../../numerics/sample-at.ts';
import type { DrumPlace } from '../../dyno/dyno-profile.ts';
import { drumNames, groupingsOf, groupOf, type DrumGrouping } from '../../dyno/drums.ts';
import { commonSpeeds, meanCurve, type MeanCurve, type RunCurve } from '../../comparison/run-curve.ts';
import type { RunFigures } from './figured-run.ts';

/** Mean power of one group of drums over engine speed, kW, corrected as the curve is. */
export interface DrumMean extends MeanCurve {
  /** As a person calls it: `front`, `rear left`. */
  name: string;
}

/** Whether a run was made on drums that are told apart so. */
export function tellsApart({ curve: { drums } }: Pick<RunFigures, 'curve'>, grouping: DrumGrouping): boolean {
  return drums !== undefined && groupingsOf(drums.map(({ place }) => place)).includes(grouping);
}

/**
 * The powers of runs by wheel, axle or side of the car: of each run the sum of
 * its drums' powers in the group, then the mean over the speeds that all
 * cover. Runs on a dyno that does not tell its drums apart so say nothing of it.
 */
export function drumMeans(runs: readonly Pick<RunFigures, 'curve'>[], grouping: DrumGrouping): DrumMean[] {
  const groups = new Map<DrumPlace, RunCurve[]>();
  for (const { curve } of runs) {
    const { drums, engineSpeedRpm } = curve;
    if (!drums || !tellsApart({ curve }, grouping)) continue;
    const ofRun = new Map<DrumPlace, Float64Array>();
    for (const { place, powerKw } of drums) {
      const group = groupOf(place, grouping);
      if (!group) continue;
      const before = ofRun.get(group);
      ofRun.set(group, before ? before.map((value, index) => value + sampleAt(powerKw, index)) : powerKw);
    }
    for (const [group, values] of ofRun) groups.set(group, [...(groups.get(group) ?? []), { engineSpeedRpm, values }]);
  }
  return [...groups].flatMap(([group, curves]) => {
    const speeds = commonSpeeds(curves);
    return speeds ? [{ name: drumNames[group], ...meanCurve(curves, speeds) }] : [];
  });
}
