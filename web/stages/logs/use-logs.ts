import { useMemo } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import type { JobFigures } from '../../../core/figures/job-figures.ts';
import { withUsual } from '../../../core/limits/broken-limits.ts';
import { knownLimits, onlyUnderLoad, type Limit } from '../../../core/limits/limit.ts';
import { hasCurve } from '../../../core/figures/runs/reading.ts';
import { usualLimits } from '../../../core/limits/suggestions.ts';
import { firstLanes, isFar, tellingGroups, type TellingGroup } from '../../../core/log/view/telling-lanes.ts';
import type { LogView } from '../../../core/log/view/log-view.ts';
import { interpolate } from '../../../core/numerics/interpolation.ts';
import { engineOfRun } from '../../../core/figures/runs/engine-of-run.ts';
import type { LaneAxisId } from '../../../core/scene/lane-axis.ts';
import { recordOfJob } from '../../../core/figures/request/record-of-job.ts';
import { useChannelChanges } from '../../workers/figures.ts';
import { meanRuns, type LabelledRun } from './view/beside.ts';

/** Lanes that stand in one screen and can be read. */
const mostLanes = 6;

/** What the lanes and the table are chosen from. */
export interface Telling {
  /** By what they tell, the most first. */
  groups: readonly TellingGroup[];
  /** Opened where nobody has chosen. */
  first: readonly string[];
  /** Channels that differ from the baseline's by more than their own spread explains. */
  far: ReadonlySet<string>;
  limits: readonly Limit[];
}

/** What tells most in a run's log; undefined until its difference from the baseline is known. */
export function useTelling(
  job: Job,
  run: LabelledRun,
  log: LogView | undefined,
  baselineId: number,
  axis: LaneAxisId,
): Telling | undefined {
  const lists = useMemo(() => {
    const baseline = meanRuns(job, baselineId).filter(({ id }) => id !== run.id);
    const alike = job.setups.map(({ id }) => meanRuns(job, id)).filter((runs) => runs.length > 1);
    return { baseline, alike };
  }, [job, baselineId, run.id]);
  const found = useChannelChanges(run, lists.baseline, lists.alike);
  return useMemo(() => {
    if (!log || (!found && !log.unjudged)) return undefined;
    const changes = (found ?? []).map(({ channel, unit, inSpreads, mean, greatest }) => ({
      channel,
      unit,
      inSpreads,
      difference: Math.max(Math.abs(mean.difference), Math.abs(greatest.difference.difference)),
    }));
    // A limit of full load says nothing of holds, cruises and starts.
    const limits = withUsual(knownLimits(job.limits), usualLimits(engineOfRun(recordOfJob(job), run))).filter(
      ({ quantity }) => hasCurve(run) || !onlyUnderLoad(quantity),
    );
    // Over engine speed, engine speed itself would be a straight line.
    const logged = log.channels
      .map(({ name }) => name)
      .filter((name) => axis !== 'engine-speed' || name !== 'engineSpeed');
    const told = { logged, changes, events: log.events, limits, extremes: log.extremes };
    return {
      groups: tellingGroups(told),
      first: firstLanes(told, job.pinnedChannels, mostLanes),
      far: new Set(changes.filter(isFar).map(({ channel }) => channel)),
      limits,
    };
  }, [job, run, log, found, axis]);
}

/** Where a run's power peak lies on an axis; undefined where it has none. */
export function peakPlace(
  figures: JobFigures | undefined,
  runId: number,
  log: LogView,
  axis: LaneAxisId,
): number | undefined {
  const curve = figures?.runs.find(({ id }) => id === runId)?.curve;
  if (!curve || log.unjudged) return undefined;
  const { rpm } = curve.peakPower;
  if (axis === 'engine-speed') return Math.round(rpm / 10) * 10;
  if (axis === 'road-speed') return curve.roadSpeedKmh && interpolate(curve.engineSpeedRpm, curve.roadSpeedKmh, rpm);
  const { x, values } = log.channels.find(({ name }) => name === 'engineSpeed')?.time ?? { x: [], values: [] };
  const at = Array.from(x.keys()).find((index) => x[index]! >= log.startS && values[index]! >= rpm);
  return at === undefined ? undefined : x[at]! - log.startS;
}
