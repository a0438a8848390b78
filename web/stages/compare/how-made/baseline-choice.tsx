import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import { spreadWords } from '../../../../core/wording/judgement-words.ts';
import { Button, Radio, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { baselineRuns } from '../../../../core/job/baseline.ts';
import { ranSetups } from '../../../../core/job/counted.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import { Choice, Control } from './control.tsx';
import { namedSetup } from './named-setup.ts';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

/** The runs of a setup that would count in its figures, and those of its frozen list. */
function runsOfBaseline(
  { runs }: Pick<Job, 'runs'>,
  setupId: number,
  frozen: Job['baseline'],
): { counted: Run[]; frozen: Run[] | undefined } {
  return {
    counted: baselineRuns(runs, setupId, null),
    frozen: frozen?.setupId === setupId ? baselineRuns(runs, setupId, frozen) : undefined,
  };
}

const labels = (runs: readonly Run[]) => runs.map((run) => run.label).join(' ');

/** What stands between a frozen baseline and the runs as they count now; undefined where they agree. */
export function frozenDiffers(job: Job, { baseline, frozen: list }: CompareView): string | undefined {
  const { counted, frozen } = runsOfBaseline(job, baseline.id, list);
  if (!list || !frozen) return undefined;
  if (job.baseline && list.version !== job.baseline.version)
    return `The baseline shown is version ${list.version} (${labels(frozen)}), which version ${job.baseline.version} has replaced${job.baseline.why && `: ${job.baseline.why}`}.`;
  if (labels(frozen) === labels(counted)) return undefined;
  return `The baseline is frozen as ${labels(frozen)} (version ${list.version}); the runs that count now are ${labels(counted) || 'none'}. The frozen ones hold until a new version is frozen.`;
}

/** Which setup is the baseline, and its freezing as a list of runs. */
export function BaselineChoice({
  job,
  figures,
  view,
  change,
}: {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}) {
  const [why, setWhy] = useState('');
  const ran = ranSetups(job.setups, job.runs);
  const { counted, frozen } = runsOfBaseline(job, view.baseline.id, view.frozen);
  const freeze = useChange(() =>
    api.freezeBaseline(job.id, {
      setupId: view.baseline.id,
      runIds: counted.map(({ id }) => id),
      why,
      spread: learnedThen(figures),
    }),
  );
  const fits = frozen && labels(frozen) === labels(counted);
  const versions = job.baseline ? [job.baseline, ...job.earlierBaselines] : [];
  return (
    <Control
      text={frozen && view.frozen ? `${view.baseline.letter}, frozen v${view.frozen.version}` : view.baseline.letter}
      label="Baseline"
    >
      {(close) => (
        <Stack gap={12}>
          <Choice
            options={ran.map((setup) => setup.letter)}
            wordsOf={(letter) => namedSetup(job.setups, letter)}
            value={view.baseline.letter}
            onChange={(baseline) => change({ baseline, version: undefined })}
          />
          <Text size="sm">
            {frozen && view.frozen
              ? `Version ${view.frozen.version}: ${labels(frozen)}${view.frozen.why && `, ${view.frozen.why}`}.${view.frozen.spread ? ` Spread ${spreadWords({ ...view.frozen.spread, from: 'learned' })}.` : ''}`
              : 'Not fixed: new runs change it.'}
          </Text>
          {job.earlierBaselines.length > 0 && (
            <Radio.Group
              label="As it was frozen"
              value={String(view.frozen?.version)}
              onChange={(version) => {
                const list = versions.find((candidate) => String(candidate.version) === version);
                const letter = job.setups.find(({ id }) => id === list?.setupId)?.letter;
                if (!list || !letter) return;
                change({
                  baseline: letter,
                  version: list === job.baseline ? undefined : version,
                  // What was chosen is what is compared with.
                  ...(letter === view.test.letter ? {} : { against: letter, from: undefined }),
                });
              }}
            >
              <Stack gap={8} mt={6}>
                {versions.map((list) => (
                  <Radio
                    key={list.version}
                    value={String(list.version)}
                    label={`Version ${list.version}`}
                    description={labels(job.runs.filter(({ id }) => list.runIds.includes(id)))}
                  />
                ))}
              </Stack>
            </Radio.Group>
          )}
          {view.frozen === job.baseline && counted.length > 0 && !fits && (
            <>
              {frozen && (
                <TextInput
                  label="Why it is replaced"
                  value={why}
                  onChange={(event) => setWhy(event.currentTarget.value)}
                />
              )}
              <Button
                variant="default"
                loading={freeze.isPending}
                onClick={() =>
                  freeze.mutate(undefined, {
                    onSuccess: () => {
                      setWhy('');
                      close();
                    },
                  })
                }
              >
                Freeze {labels(counted)}
              </Button>
              <Text size="xs" c="dimmed">
                A frozen baseline is a list of runs, never figures. Replacing it makes the next version.
              </Text>
            </>
          )}
        </Stack>
      )}
    </Control>
  );
}

/** What was known of the spread when the list is frozen: later repeats of the shop change nothing of it. */
function learnedThen({ spread: { share, df, repeats, from } }: JobFigures) {
  return from === 'learned' && Number.isFinite(df)
    ? { share, df, ...(repeats === undefined ? {} : { repeats }) }
    : null;
}
