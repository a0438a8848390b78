import { countedRuns, type CountableRun } from '../job/counted.ts';
import type { SetupItem } from '../setup/item.ts';
import { returnedTo } from '../setup/returned.ts';
import { nextRunWords } from '../wording/judgement-words.ts';
import { nextRunsAdvice, type Advice } from './next-runs.ts';
import type { JobFigures } from '../figures/job-figures.ts';

interface AdvisedSetup {
  id: number;
  letter: string;
  parentId: number | null;
  items: readonly SetupItem[];
}

export interface AdvisedJob {
  setups: readonly AdvisedSetup[];
  runs: readonly (CountableRun & { startedAt: string })[];
}

/**
 * What a job's runs so far say of the next ones of a setup.
 * @param figures in which the setup is compared with its parent; undefined while they are being made
 * @param planned runs of a setup
 */
export function runAdvice(
  job: AdvisedJob,
  setup: AdvisedSetup,
  baseline: AdvisedSetup,
  figures: (Pick<JobFigures, 'setups' | 'comparison'> & Partial<Pick<JobFigures, 'next'>>) | undefined,
  planned: number,
): Advice[] {
  const runs = countedRuns(job.runs, setup.id).length;
  const parent = job.setups.find((candidate) => candidate.id === setup.parentId);
  const ownFigures = figures?.setups.find((candidate) => candidate.setupId === setup.id);
  const comparison = parent && figures?.comparison;
  const detectable = comparison?.detectable;
  const range = comparison?.power.ranges[0];
  const levelKw = comparison?.power.commonRange.baseline ?? ownFigures?.peakKw;
  const spreadKw = detectable?.spreadKw ?? (ownFigures && ownFigures.runs > 1 ? ownFigures.spreadKw : undefined);
  const known = spreadKw !== undefined && levelKw ? { spreadKw, levelKw } : undefined;
  const letterOf = (id: number) => job.setups.find((candidate) => candidate.id === id)?.letter ?? '?';
  const next: Advice[] = figures?.next
    ? [{ id: 'next', severity: 'note', text: nextRunWords(figures.next, letterOf) }]
    : [];
  const found = nextRunsAdvice({
    letter: setup.letter,
    parentLetter: parent?.letter ?? (setup.id === baseline.id ? undefined : baseline.letter),
    runs,
    planned,
    spreadShare: known && known.spreadKw / known.levelKw,
    df: Math.round(range?.difference.df ?? (ownFigures ? ownFigures.runs - 1 : 0)),
    drift: range?.drift,
    bracketed: parent !== undefined && returnedTo(job, setup.id, parent.id),
  });
  // A return is not advised twice where it is the next step anyway.
  const isReturn = figures?.next?.why === 'return';
  return [...next, ...found.filter(({ id }) => !(isReturn && id === 'bracket'))];
}
