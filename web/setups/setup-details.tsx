import { useOwnUnits } from '../units/use-own-units.tsx';
import { Button, Group, Modal, SegmentedControl, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { SetupChange } from '../../contract/job/job-requests.ts';
import type { Job, Setup } from '../../contract/job/records.ts';
import type { SetupFigures } from '../../core/figures/pairs/setup-figures.ts';
import { differences } from '../../core/setup/difference.ts';
import { itemSentence, type SetupItem } from '../../core/setup/item.ts';
import { convert, type PowerUnit } from '../../core/units/units.ts';
import { ForecastsOfSetup } from '../forecasts/forecasts-of-setup.tsx';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { takeAway } from '../state/undo.tsx';
import { SavedField, SavedNumber } from '../ui/saved-field.tsx';
import { Prediction } from './prediction.tsx';
import classes from './setup-details.module.css';
import { TuneFiles } from './tune-files.tsx';
import { newestSetup } from '../../core/job/baseline.ts';

interface SetupDetailsProps {
  job: Job;
  setup: Setup;
  figures: SetupFigures | undefined;
  /** What a decision would rest on now. */
  decidedOn: string;
  opened: boolean;
  onClose: () => void;
  /** What is done with a setup that going back has made. */
  onAdded: (setup: Setup) => void;
}

/** All that is written of a setup: what changed, what it was expected to give, the files in it, and what was decided. */
export function SetupDetails({ job, setup, figures, decidedOn, opened, onClose, onAdded }: SetupDetailsProps) {
  const parent = job.setups.find((candidate) => candidate.id === setup.parentId);
  const ran = job.runs.some((run) => run.setupId === setup.id);
  const first = setup.parentId === null;
  const { power: powerUnit, write } = useOwnUnits();
  const said = (item: SetupItem) => write(itemSentence(item));
  const apart = differences(job.setups, job.setups[0]!.id, setup.id);
  return (
    <Modal opened={opened} onClose={onClose} title={`Setup ${setup.letter}`} size="lg">
      <Stack gap={18}>
        <SavedField
          label={parent ? `Changed from ${parent.letter}` : 'The car as it came'}
          field="change"
          value={setup.change}
          revision={setup.revision}
          place={`setup/${setup.id}/change`}
          refuse={(text) => (text.trim() === '' ? 'Say in a line what changed.' : undefined)}
          save={(change, revision) => api.changeSetup(setup.id, { change, revision })}
        />
        {setup.items.length > 0 && (
          <Text size="sm" c="dimmed" className={classes.items}>
            {setup.items.length === 1 ? 'One item' : `${setup.items.length} items`}: {setup.items.map(said).join(' · ')}
            {apart.length > setup.items.length &&
              `. Against ${job.setups[0]!.letter} in all: ${apart.map(({ to, from }) => (to ? said(to) : from ? `without ${said(from)}` : '')).join(' · ')}`}
          </Text>
        )}
        {!first && (
          <section>
            <h3 className="heading">Prediction</h3>
            {ran ? (
              <Prediction setup={setup} figures={figures} />
            ) : (
              <SavedNumber
                label={`Expected to give on its parent, mean over ${job.bands[0]?.name ?? 'the range'}, ${powerUnit}`}
                field="predictionKw"
                value={setup.predictionKw === null ? null : inUnit(setup.predictionKw, powerUnit)}
                revision={setup.revision}
                place={`setup/${setup.id}/predictionKw`}
                save={(expected, revision) =>
                  api.changeSetup(setup.id, {
                    predictionKw: expected === null ? null : convert(expected, powerUnit, 'kW'),
                    revision,
                  })
                }
              />
            )}
          </section>
        )}
        <ForecastsOfSetup job={job} setup={setup} figures={figures} ran={ran} />
        <TuneFiles job={job} setup={setup} />
        {!first && parent && <Decision setup={setup} decidedOn={decidedOn} />}
        <GoBack job={job} setup={setup} parent={parent} onAdded={onAdded} close={onClose} />
        {!ran && !first && (
          <Group justify="flex-end">
            <Button
              variant="subtle"
              color="gray"
              onClick={() => {
                onClose();
                void takeAway(`Setup ${setup.letter}`, () => api.removeSetup(setup.id));
              }}
            >
              Take this setup away
            </Button>
          </Group>
        )}
      </Stack>
    </Modal>
  );
}

/** A power as it is written in a unit: a hundredth is more than anybody predicts. */
const inUnit = (kw: number, unit: PowerUnit) => Number(convert(kw, 'kW', unit).toFixed(2));

const decisions = [
  { value: 'none', label: 'open' },
  { value: 'keep', label: 'keep' },
  { value: 'go back', label: 'go back' },
  { value: 'try further', label: 'try further' },
];

/** What was decided on a change, why, and what it rested on then. */
export function Decision({
  setup,
  decidedOn,
  heading = 'Decision',
}: {
  setup: Setup;
  decidedOn: string;
  heading?: string;
}) {
  // What is being written stays, whatever comes from the server meanwhile.
  const [typed, setTyped] = useState<string>();
  const why = typed ?? setup.decisionWhy;
  const decide = useChange((change: SetupChange) => api.changeSetup(setup.id, change));
  return (
    <section>
      <h3 className="heading">{heading}</h3>
      <SegmentedControl
        aria-label="Decision"
        fullWidth
        data={decisions}
        value={setup.decision ?? 'none'}
        onChange={(value) =>
          decide.mutate(
            value === 'none'
              ? { decision: null, decisionWhy: why, decidedOn: '' }
              : { decision: value as 'keep', decisionWhy: why, decidedOn },
          )
        }
      />
      <TextInput
        mt={8}
        aria-label="Why"
        placeholder="why, in a line"
        value={why}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onBlur={() => {
          if (why === setup.decisionWhy) setTyped(undefined);
          else decide.mutate({ decisionWhy: why }, { onSuccess: () => setTyped(undefined) });
        }}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      {setup.decision && setup.decidedOn && (
        <p className={classes.rested} data-testid="decided-on">
          It rested on: {setup.decidedOn}.
        </p>
      )}
    </section>
  );
}

/** Going back makes a new setup whose parent is the earlier one: to the parent after a decision, else to this one. */
export function GoBack({
  job,
  setup,
  parent,
  onAdded,
  close,
}: {
  job: Job;
  setup: Setup;
  parent: Setup | undefined;
  onAdded: (setup: Setup) => void;
  close: () => void;
}) {
  const target = setup.decision === 'go back' ? parent : setup;
  const goBack = useChange((to: Setup) =>
    api.addSetup(job.id, { parentId: to.id, change: `Back to ${to.letter}`, items: [] }),
  );
  if (!target || target.id === newestSetup(job.setups).id) return null;
  return (
    <Group>
      <Button
        variant="default"
        loading={goBack.isPending}
        onClick={() =>
          goBack.mutate(target, {
            onSuccess: (added) => {
              close();
              onAdded(added);
            },
          })
        }
      >
        Go back to {target.letter} now
      </Button>
    </Group>
  );
}
