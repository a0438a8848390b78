import { Button, Modal, Stack, Text } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import type { Job } from '../../../../contract/job/records.ts';
import { countedRuns, ranSetups } from '../../../../core/job/counted.ts';
import { ElsewhereChoice } from './elsewhere-choice.tsx';
import { Choice, Control } from './control.tsx';
import { namedSetup } from './named-setup.ts';
import control from './control.module.css';
import classes from './how-made.module.css';
import type { ChangeView } from '../view/view.ts';
import type { CompareView } from '../view/view-address.ts';

interface AgainstChoiceProps {
  job: Job;
  view: CompareView;
  change: ChangeView;
}

/** A check of a setup on itself needs so many runs: two in each half. */
const leastForHalves = 4;

/** What is compared with what, and a way to turn it round. */
export function AgainstChoice({ job, view, change }: AgainstChoiceProps) {
  const ran = ranSetups(job.setups, job.runs);
  const halves = halvesOf(job, view);
  const split = view.runs ?? view.againstRuns;
  const against = view.againstRuns?.join(' ') ?? view.against.letter;
  const [elsewhere, { open, close: leave }] = useDisclosure(false);
  const itsParent = !split && view.against.id === view.test.parentId;
  return (
    <span className={classes.pair}>
      <span>
        {view.runs?.join(' ') ?? view.test.letter} against{' '}
        <Control text={`${against}${itsParent ? ', its parent' : ''}`} label="Compare against">
          {(close) => (
            <Stack gap={12}>
              <Choice
                options={ran.filter((setup) => setup.id !== view.test.id).map((setup) => setup.letter)}
                wordsOf={(letter) => namedSetup(job.setups, letter)}
                value={split || view.elsewhere ? '' : view.against.letter}
                onChange={(letter) =>
                  change({ against: letter, from: undefined, runs: undefined, againstRuns: undefined })
                }
              />
              {halves && (
                <div>
                  <Button
                    variant="default"
                    size="sm"
                    fullWidth
                    onClick={() =>
                      change({ against: view.test.letter, from: undefined, runs: halves[1], againstRuns: halves[0] })
                    }
                  >
                    {view.test.letter} against itself
                  </Button>
                  <Text size="xs" c="dimmed" mt={6}>
                    Its later runs against its earlier ones: what scatter and drift make by themselves.
                  </Text>
                </div>
              )}
              <Button
                variant="default"
                size="sm"
                fullWidth
                onClick={() => {
                  close();
                  open();
                }}
              >
                From elsewhere…
              </Button>
            </Stack>
          )}
        </Control>
        <Modal
          opened={elsewhere}
          onClose={leave}
          title={`Compare ${view.test.letter} with something from elsewhere`}
          size="md"
        >
          <ElsewhereChoice job={job} view={view} change={change} />
        </Modal>
      </span>
      {!view.elsewhere && (split || view.against.id !== view.test.id) && (
        <button
          className={control.control}
          aria-label={`Exchange ${view.test.letter} and ${view.against.letter}`}
          onClick={() =>
            change({
              setup: view.against.letter,
              against: view.test.letter,
              runs: view.againstRuns?.join('.'),
              againstRuns: view.runs?.join('.'),
            })
          }
        >
          Exchange {view.test.letter} and {view.against.letter}
        </button>
      )}
    </span>
  );
}

/** The counted runs of the test setup, earlier and later half, as the address writes them. */
function halvesOf(job: Job, { test }: CompareView): [string, string] | undefined {
  const labels = countedRuns(job.runs, test.id)
    .sort((a, b) => Date.parse(a.startedAt) - Date.parse(b.startedAt))
    .flatMap((run) => run.label ?? []);
  if (labels.length < leastForHalves) return undefined;
  const middle = labels.length >> 1;
  return [labels.slice(0, middle).join('.'), labels.slice(middle).join('.')];
}
