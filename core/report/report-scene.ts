import type { JobFigures } from '../figures/job-figures.ts';
import { compareScene, sceneAt } from '../scene/compare-scene.ts';
import { figureLanes } from '../scene/lane-list.ts';
import type { PhraseBook } from '../language/phrase-book.ts';
import { scenePicture, type Picture, type Shape } from '../scene/picture.ts';
import { isEmpty } from '../scene/scene.ts';
import type { Reader } from '../sentence/sentence.ts';
import { shownSetups, type Shown } from '../scene/shown-setups.ts';
import type { SceneView } from '../scene/scene-view.ts';
import type { Units } from '../units/told-units.ts';
import { laterName } from './reported-job.ts';
import type { ReportedJob } from './reported-job.ts';

/** The width of the lanes in a report, in units of which a line of text is 13 high. */
export const reportWidth = 720;
/** On a phone. */
export const narrowWidth = 380;
const heights: Readonly<Record<string, number>> = { power: 170, torque: 120, gain: 120 };

type SceneJob = Pick<ReportedJob, 'setups' | 'bands' | 'deliveredSetupId'>;

/** Arrived and delivered over one another as Compare draws them; undefined where neither has a curve. */
export function reportPicture(
  job: SceneJob,
  figures: JobFigures,
  reader: Reader,
  width = reportWidth,
): Picture | undefined {
  const view = sceneView(job, figures, reader);
  const content = view && compareScene({ view, shown: reportShown(job, figures, reader), figures }, []);
  if (!content) return undefined;
  const { language } = reader;
  const scene = sceneAt(content, undefined);
  // Names first: what stands beside them is placed by their length.
  const named = language
    ? {
        ...scene,
        lanes: scene.lanes.map((lane) => (isEmpty(lane) ? lane : { ...lane, name: language.text(lane.name) })),
      }
    : scene;
  const picture = scenePicture(named, {
    width,
    left: width < reportWidth ? 36 : 48,
    right: width < reportWidth ? 68 : 84,
    letters: 12,
    laneHeight: (lane) => heights[lane] ?? 120,
  });
  return language ? { ...picture, shapes: picture.shapes.map((shape) => inLanguage(shape, language)) } : picture;
}

function inLanguage(shape: Shape, language: PhraseBook): Shape {
  if (shape.is === 'words') return { ...shape, words: language.text(shape.words) };
  return shape.is === 'clipped'
    ? { ...shape, shapes: shape.shapes.map((inner) => inLanguage(inner, language)) }
    : shape;
}

/** The two curves of a report, called as a report calls them. */
export function reportShown(job: SceneJob, figures: JobFigures, units: Units): Shown[] {
  const view = sceneView(job, figures, units);
  if (!view) return [];
  const isLater = ({ isTest }: Shown) => isTest && view.test !== view.against;
  return shownSetups({ setups: job.setups }, figures, view).map((line) => ({
    ...line,
    name: isLater(line) ? laterName(job) : 'arrived',
  }));
}

function sceneView({ setups, bands }: SceneJob, { sides }: JobFigures, units: Units): SceneView | undefined {
  const [test, against] = [sides.testId, sides.againstId].map((id) => setups.find((setup) => setup.id === id));
  if (!test || !against) return undefined;
  return {
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
}
