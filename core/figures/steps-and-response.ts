import { worstOf } from '../limits/broken-limits.ts';
import { type CountedRun } from './runs/figured-run.ts';
import { limitQuantities } from '../limits/limit.ts';
import { variedItems } from '../response/levels.ts';
import { variedPlanes } from '../response/plane.ts';
import { planeFigures } from '../response/plane-figures.ts';
import { responseTo, type Level, type StepBetween } from '../response/response.ts';
import { attributionOf, type AttributedSetup, type DifferenceBetween } from '../comparison/attribution.ts';
import { comparedPair, pairDifference, unlikeOf, type PairsOf } from './pairs/compared-pair.ts';
import type { SetupCurves } from './pairs/compared-pair.ts';
import type { ResolvedRequest } from './runs/resolved-request.ts';
import { headroomOf } from './runs/limits-of-runs.ts';
import type { JobFigures } from './job-figures.ts';

/** The setups with their counted runs' power. */
function runSetups(request: ResolvedRequest, curves: readonly SetupCurves[]): AttributedSetup[] {
  return request.setups.map((setup) => ({
    id: setup.id,
    letter: setup.letter,
    parentId: setup.parentId ?? null,
    change: setup.change ?? '',
    items: setup.items ?? [],
    runs: curves.find((candidate) => candidate.setupId === setup.id)?.power ?? [],
  }));
}

/** The ladder of steps to the test setup. */
export function stepsOf(of: PairsOf): Pick<JobFigures, 'attribution'> {
  const { request, setups } = of;
  const between: DifferenceBetween = (...asked) => pairDifference(of, ...asked);
  const attribution = attributionOf(runSetups(request, setups), request.testId, between, request.bands?.[0]);
  if (!attribution) return {};
  const ladder = [...attribution.steps].reverse();
  // Two steps on one dyno with one on another between them add up to nothing either.
  const unlike = ladder.flatMap(({ setupId, beforeId }) =>
    beforeId === undefined ? [] : stopsOf(of, setupId, beforeId, attribution),
  );
  const ends = stopsOf(of, ladder[0]!.setupId, ladder[ladder.length - 1]!.setupId, attribution);
  const [reason] = [...ends, ...unlike];
  return { attribution: { ...attribution, ...(reason && { notAlike: reason }) } };
}

/** What withholds a claim on one setup against another for the circumstances that they were measured under. */
function stopsOf(
  of: PairsOf,
  testId: number,
  againstId: number,
  { fromRpm, toRpm }: { fromRpm: number; toRpm: number },
) {
  const pair = comparedPair(of, testId, againstId);
  return unlikeOf(of, pair, { fromRpm, toRpm, drift: undefined }).filter(({ severity }) => severity === 'stop');
}

/** What the numeric items around the test setup gave at their levels. */
export function responseOf(
  of: PairsOf,
  figured: readonly CountedRun[],
): Pick<JobFigures, 'varied' | 'response' | 'planes' | 'plane'> {
  const { request } = of;
  const setups = runSetups(request, of.setups);
  const ran = setups.filter(({ runs }) => runs.length > 0).map(({ id }) => id);
  const items = variedItems(setups, request.testId, ran);
  const varied = items.map((item) => ({ key: item.key, label: item.label, levels: item.levels.length }));
  const chosen = items.find((item) => item.key === request.respondTo) ?? items[0];
  const planes = planesOf(request, setups, ran, figured);
  if (!chosen) return { varied, ...planes };
  const levels = chosen.levels.map(({ x, setupIds }): Level => {
    const at = setups.filter(({ id }) => setupIds.includes(id));
    const runs = figured.filter(({ run }) => setupIds.includes(run.setupId) && run.counted);
    return {
      x,
      letters: at.map(({ letter }) => letter).join(' '),
      runs: at.flatMap((setup) => setup.runs),
      runsOf: at.flatMap((setup) => setup.runs.map(() => setup.letter)),
      // Setups are made in the order in which they are tried.
      order: Math.max(...setupIds.map((id) => setups.findIndex((setup) => setup.id === id))),
      broken: worstOf(runs.flatMap(({ figures }) => figures.broken)),
      headroom: headroomOf(request.limits ?? [], runs, request.settings.crank !== undefined),
    };
  });
  // A step between two setups has the interval of their judgement, as everywhere else.
  const only = (x: number) => chosen.levels.find((level) => level.x === x)?.setupIds;
  const between: StepBetween = (fromX, toX, ...range) => {
    const [test, against] = [only(toX) ?? [], only(fromX) ?? []];
    return test.length === 1 && against.length === 1 ? pairDifference(of, test[0]!, against[0]!, ...range) : undefined;
  };
  const found = responseTo(levels, request.bands?.[0], chosen, between);
  const unknown = setups.filter(({ id }) => chosen.unknownIds.includes(id)).map(({ letter }) => letter);
  return {
    varied,
    ...planes,
    response: { key: chosen.key, label: chosen.label, unit: chosen.unit, found, unknown, item: chosen.item },
  };
}

/** Two items at once, where setups differ in them alone or together. */
function planesOf(
  request: ResolvedRequest,
  setups: readonly AttributedSetup[],
  ran: readonly number[],
  figured: readonly CountedRun[],
): Pick<JobFigures, 'planes' | 'plane'> {
  const found = variedPlanes(setups, request.testId, ran);
  const planes = found.map(({ key, across, down, setups: on }) => ({
    key,
    label: `${across.label} × ${down.label}`,
    points: on.length,
  }));
  const chosen = found.find(({ key }) => key === request.respondTo) ?? found[0];
  if (!chosen) return { planes };
  const limits = request.limits ?? [];
  const runs = chosen.setups.map(({ id }) => ({
    setupId: id,
    runs: setups.find((setup) => setup.id === id)?.runs ?? [],
    headroom: headroomOf(
      limits,
      figured.filter(({ run }) => run.setupId === id && run.counted),
      request.settings.crank !== undefined,
    ),
  }));
  const labels = limits.map(({ quantity }) => limitQuantities[quantity].label);
  const plane = planeFigures(chosen, runs, request.bands?.[0], labels);
  return { planes, ...(plane && { plane }) };
}
