import type { JobFigures } from '../figures/job-figures.ts';
import { compareScene, sceneAt } from '../scene/compare-scene.ts';
import { figureLanes } from '../scene/lane-list.ts';
import { scenePicture, type Picture } from '../scene/picture.ts';
import { shownSetups } from '../scene/shown-setups.ts';
import type { SceneView } from '../scene/scene-view.ts';
import type { Units } from '../units/told-units.ts';
import { laterName } from './compose-report.ts';
import type { ReportedJob } from './reported-job.ts';

/** The width of the lanes in a report, in units of which a line of text is 13 high. */
export const reportWidth = 720;
/** On a phone. */
export const narrowWidth = 380;
const heights: Readonly<Record<string, number>> = { power: 170, torque: 120, gain: 120 };

/** Arrived and delivered over one another as Compare draws them; undefined where neither has a curve. */
export function reportPicture(
  job: Pick<ReportedJob, 'setups' | 'bands' | 'deliveredSetupId'>,
  figures: JobFigures,
  units: Units,
  width = reportWidth,
): Picture | undefined {
  const { setups, bands } = job;
  const { testId, againstId } = figures.sides;
  const [test, against] = [testId, againstId].map((id) => setups.find((setup) => setup.id === id));
  if (!test || !against) return undefined;
  const view: SceneView = {
    test,
    against,
    baseline: against,
    also: [],
    hide: [],
    singles: 'none',
    raw: false,
    axis: 'engine-speed',
    lanes: test === against ? ['power', 'torque'] : figureLanes,
    presenting: false,
    bands,
    units,
  };
  const shown = shownSetups({ setups }, figures, view).map((line) => ({ ...line, name: line.isTest && test !== against ? laterName(job) : 'arrived' })); // prettier-ignore
  const content = compareScene({ view, shown, figures }, []);
  if (!content) return undefined;
  return scenePicture(sceneAt(content, undefined), { width, left: width < reportWidth ? 36 : 48, right: width < reportWidth ? 68 : 84, letters: 12, laneHeight: (lane) => heights[lane] ?? 120 }); // prettier-ignore
}
