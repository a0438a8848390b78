import { dirname, resolve } from 'node:path';
import { airFile, dynoFile } from '../contract/files/machine-and-air.ts';
import { judgeFile, type JudgeFile, type JudgementJson } from '../contract/files/judge-file.ts';
import { judgementToJson } from '../core/exchange/results/judgement-json.ts';
import type { RunRecord, SetupRecord } from '../core/figures/request/job-record.ts';
import { learnedFrom } from '../core/figures/request/learned.ts';
import { makeJobFigures } from '../core/figures/make-job-figures.ts';
import { readingOf } from '../core/figures/runs/reading.ts';
import { Refusal } from '../core/refusal.ts';
import { readChange } from '../core/setup/read-change.ts';
import { assumedOf, assumedSpreadWords } from './assumed.ts';
import { jsonFile, recordingFile, refuseUnusable, runOfFile } from './input.ts';

export const judgeUsage = `suvok judge JOB.json
    What may be said of every setup of a job against its parent and against the first setup, as pairs, as cards and
    steps (all pairs together), and what to run next. JOB.json names the setups, the recordings of their runs with
    their times, a plan where one was stated, and the spreads of earlier jobs: docs/file-formats.md has its form.`;

/**
 * `suvok judge`: a job's recordings to all that may be claimed of them.
 * @throws Refusal with a sentence for every kind of bad input
 */
export function judgeCommand(words: readonly string[]): JudgementJson {
  const [file, ...more] = words;
  if (!file || file.startsWith('--')) throw new Refusal('Name the job: suvok judge JOB.json');
  if (more.length > 0) throw new Refusal(`One job at a time: "${more[0]}" is one too many.`);
  const job = jsonFile(file, judgeFile);
  const at = (path: string) => resolve(dirname(file), path);
  const setups = setupsOf(job, file);
  const idOf = (label: string) => setups.find(({ letter }) => letter === label)?.id;
  const runs = job.runs.map((run, index): RunRecord => {
    const setupId = idOf(run.setup);
    if (setupId === undefined)
      throw new Refusal(`${file}: run ${run.label} is of setup "${run.setup}", which is not among the setups.`);
    const air = run.air ?? job.air;
    return {
      ...runOfFile(index + 1, run.label, {
        dyno: jsonFile(at(run.dyno ?? job.dyno), dynoFile),
        air: air === undefined ? undefined : jsonFile(at(air), airFile),
        engineToDrumRatio: null,
      }),
      setupId,
      startedAt: run.at ?? null,
      gear: run.gear ?? null,
      setAsideReason: run.counted ? null : 'not counted',
    };
  });
  const twice = job.runs.find(({ label }, index) => job.runs.findIndex((other) => other.label === label) !== index);
  if (twice) throw new Refusal(`${file}: run ${twice.label} is named twice.`);
  const readings = new Map(
    runs.map((run, index) => [run.id, readingOf(run, recordingFile(at(job.runs[index]!.file)))]),
  );
  const hasAir = runs.some(({ air }) => air);
  const standard = hasAir ? 'sae-j1349' : 'none';
  const figures = makeJobFigures(
    {
      job: { vehicle: '', ignition: null, setups, runs, baseline: null, plan: job.plan && { runs: job.plan.runsEach } },
      view: {
        standard,
        share: 1,
        smoothing: 'auto',
        powerUnit: 'kW',
        baselineId: setups[0]!.id,
        everyPair: true,
      },
      learned: learnedFrom({
        repeats: job.history.map(({ runs: count, spreadPercent }) => ({ runs: count, share: spreadPercent / 100 })),
      }),
    },
    readings,
  );
  refuseUnusable(figures.unusable, (id) => job.runs[id - 1]!.file);
  const times = runs.every(({ startedAt }) => startedAt !== null);
  return {
    ...judgementToJson(figures, (id) => setups[id - 1]!.letter),
    assumed: [
      ...assumedOf('sae-j1349', undefined, { hasAir, isNamed: false }),
      ...assumedSpreadWords(figures.spread),
      ...(times ? [] : ['One day and no drift: not all runs say when they were made (at).']),
      'One mounting: where the car was strapped anew cannot be given here.',
    ],
  };
}

function setupsOf(job: JudgeFile, file: string): (SetupRecord & { letter: string })[] {
  const labels = job.setups.map(({ label }) => label);
  return job.setups.map(({ label, parent, change, plan }, index) => {
    if (labels.indexOf(label) !== index) throw new Refusal(`${file}: setup ${label} is named twice.`);
    const parentIndex = parent === undefined ? -1 : labels.indexOf(parent);
    if (parent !== undefined && (parentIndex < 0 || parentIndex >= index)) {
      throw new Refusal(`${file}: the parent of setup ${label} is "${parent}", which is not a setup named before it.`);
    }
    return {
      id: index + 1,
      letter: label,
      parentId: parentIndex < 0 ? null : parentIndex + 1,
      change,
      items: readChange(change),
      ...(plan ? { plan: { runs: plan.runsEach } } : {}),
    };
  });
}
