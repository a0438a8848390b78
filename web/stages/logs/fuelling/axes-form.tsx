import { Button, Group, Modal, NumberInput, SegmentedControl, Select, Stack, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import type { VehicleFuelling } from '../../../../contract/shop/vehicles.ts';
import { mustBeAxis } from '../../../../core/fuelling/axes.ts';
import {
  fuellingAxisChannels,
  type FuellingAxes,
  type FuellingAxisChannel,
} from '../../../../core/setup/fuel-table.ts';
import { readTable } from '../../../../core/fuelling/table-text.ts';
import { axisNames } from '../../../../core/wording/fuelling-words.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import button from '../../../ui/text-button.module.css';

/** Opens what the vehicle's fuel table is laid out over. */
export function AxesButton({ job, axes }: { job: Job; axes: FuellingAxes }) {
  const [opened, setOpened] = useState(false);
  return (
    <>
      <button className={button.act} onClick={() => setOpened(true)}>
        Axes and probe…
      </button>
      <Modal opened={opened} onClose={() => setOpened(false)} title={`Fuel table of ${job.vehicle}`} size="lg">
        <AxesForm job={job} axes={axes} close={() => setOpened(false)} />
      </Modal>
    </>
  );
}

const channelData = fuellingAxisChannels.map((value) => ({
  value,
  label: `${axisNames[value].name}, ${axisNames[value].unit}`,
}));

interface Draft {
  across: { channel: FuellingAxisChannel; text: string };
  down: { channel: FuellingAxisChannel | 'none'; text: string };
  by: 'corners' | 'nearest';
  tolerance: number;
  delay: 'found' | 'typed';
  transportS: number;
  lagS: number;
  lambdaTarget: number;
}

/** Breakpoints typed or pasted, from a spreadsheet or out of a file; remembered with the vehicle. */
function AxesForm({ job, axes, close }: { job: Job; axes: FuellingAxes; close: () => void }) {
  const [draft, setDraft] = useState(() => draftOf(axes, job.car.fuelling ?? null));
  const change = useChange((fuelling: VehicleFuelling) =>
    api.changeVehicle(job.car.id, { fuelling, revision: job.car.revision }),
  );
  const read = settingsIn(draft);
  const problems = 'problems' in read ? read.problems : {};
  /** A whole table pasted into either field brings both axes. */
  const paste = (text: string, into: 'across' | 'down') => {
    const found = tried(() => readTable(text));
    if (found && typeof found !== 'string' && found.down && draft.down.channel !== 'none')
      setDraft({
        ...draft,
        across: { ...draft.across, text: found.across.join(', ') },
        down: { ...draft.down, text: found.down.join(', ') },
      });
    else setDraft({ ...draft, [into]: { ...draft[into], text } });
  };
  const fromFile = async (file: File | undefined) => file && paste(await file.text(), 'across');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if ('settings' in read) change.mutate(read.settings, { onSuccess: close });
      }}
    >
      <Stack gap={12}>
        <p className="soft" style={{ margin: 0 }}>
          Type the breakpoints, or paste them, or a whole table, from a spreadsheet or from the controller’s own
          program.
        </p>
        <Group grow align="flex-start" gap={10}>
          <Select
            label="Across"
            data={channelData}
            allowDeselect={false}
            value={draft.across.channel}
            onChange={(channel) =>
              setDraft({ ...draft, across: { ...draft.across, channel: channel as FuellingAxisChannel } })
            }
          />
          <Select
            label="Up"
            data={[{ value: 'none', label: 'none: one axis only' }, ...channelData]}
            allowDeselect={false}
            value={draft.down.channel}
            onChange={(channel) =>
              setDraft({ ...draft, down: { ...draft.down, channel: channel as FuellingAxisChannel } })
            }
          />
        </Group>
        <Textarea
          label={`Breakpoints across, ${axisNames[draft.across.channel].unit}`}
          autosize
          minRows={1}
          maxRows={4}
          data-autofocus
          value={draft.across.text}
          error={problems.across}
          onChange={(event) => paste(event.currentTarget.value, 'across')}
        />
        {draft.down.channel !== 'none' && (
          <Textarea
            label={`Breakpoints up, ${axisNames[draft.down.channel].unit}`}
            autosize
            minRows={1}
            maxRows={4}
            value={draft.down.text}
            error={problems.down}
            onChange={(event) => paste(event.currentTarget.value, 'down')}
          />
        )}
        <label
          className={button.act}
          style={{ justifySelf: 'start', alignSelf: 'flex-start', display: 'inline-grid', alignItems: 'center' }}
        >
          Read from a file…
          <input
            className="seen-by-readers"
            type="file"
            accept=".csv,.txt,.tsv,text/*"
            onChange={(event) => void fromFile(event.currentTarget.files?.[0])}
          />
        </label>
        <Group grow align="flex-end" gap={10}>
          <SegmentedControl
            aria-label="How a reading is dealt"
            data={[
              { value: 'corners', label: 'Shared among corners' },
              { value: 'nearest', label: 'Nearest breakpoint' },
            ]}
            value={draft.by}
            onChange={(by) => setDraft({ ...draft, by: by as 'corners' })}
          />
          {draft.by === 'nearest' && (
            <NumberInput
              label="Within, % of the step"
              min={5}
              max={50}
              value={Math.round(100 * draft.tolerance)}
              onChange={(value) => setDraft({ ...draft, tolerance: Number(value) / 100 })}
            />
          )}
        </Group>
        <Group grow align="flex-end" gap={10}>
          <SegmentedControl
            aria-label="Probe delay"
            data={[
              { value: 'found', label: 'Find the probe’s delay' },
              { value: 'typed', label: 'Type it' },
            ]}
            value={draft.delay}
            onChange={(delay) => setDraft({ ...draft, delay: delay as 'found' })}
          />
          {draft.delay === 'typed' && (
            <>
              <NumberInput
                label="Way of the gas, s"
                min={0}
                max={1.5}
                step={0.01}
                value={draft.transportS}
                onChange={(value) => setDraft({ ...draft, transportS: Number(value) })}
              />
              <NumberInput
                label="Probe’s lag, s"
                min={0.01}
                max={1}
                step={0.01}
                value={draft.lagS}
                onChange={(value) => setDraft({ ...draft, lagS: Number(value) })}
              />
            </>
          )}
        </Group>
        <NumberInput
          label="λ aimed at, where the log has no target"
          min={0.5}
          max={3}
          step={0.01}
          decimalScale={3}
          value={draft.lambdaTarget}
          onChange={(value) => setDraft({ ...draft, lambdaTarget: Number(value) })}
        />
        <Group justify="flex-end" gap={8}>
          <Button variant="subtle" color="gray" size="md" onClick={close}>
            Cancel
          </Button>
          <Button type="submit" variant="default" size="md" loading={change.isPending} disabled={'problems' in read}>
            Apply
          </Button>
        </Group>
      </Stack>
    </form>
  );
}

function draftOf({ across, down }: FuellingAxes, kept: VehicleFuelling | null): Draft {
  return {
    across: { channel: across.channel, text: across.breakpoints.join(', ') },
    down: { channel: down?.channel ?? 'none', text: down?.breakpoints.join(', ') ?? '' },
    by: kept?.dealing.by ?? 'corners',
    tolerance: kept?.dealing.by === 'nearest' ? kept.dealing.tolerance : 0.3,
    delay: kept?.delay ? 'typed' : 'found',
    transportS: kept?.delay?.transportS ?? 0.15,
    lagS: kept?.delay?.lagS ?? 0.1,
    lambdaTarget: kept?.lambdaTarget ?? 1,
  };
}

/** What a draft says, or what is wrong with each of its fields. */
function settingsIn(draft: Draft): { settings: VehicleFuelling } | { problems: { across?: string; down?: string } } {
  const across = breakpointsIn(draft.across.text);
  const down = draft.down.channel === 'none' ? null : breakpointsIn(draft.down.text);
  if (typeof across === 'string' || typeof down === 'string')
    return { problems: { ...(typeof across === 'string' && { across }), ...(typeof down === 'string' && { down }) } };
  return {
    settings: {
      axes: {
        across: { channel: draft.across.channel, breakpoints: across },
        down: down && draft.down.channel !== 'none' ? { channel: draft.down.channel, breakpoints: down } : null,
      },
      dealing: draft.by === 'corners' ? { by: 'corners' } : { by: 'nearest', tolerance: draft.tolerance },
      delay: draft.delay === 'found' ? null : { transportS: draft.transportS, lagS: draft.lagS },
      lambdaTarget: draft.lambdaTarget,
    },
  };
}

function breakpointsIn(text: string): number[] | string {
  const list = text
    .split(/[\s;]+|,(?:\s+|(?=\d{2,}))/)
    .filter(Boolean)
    .map((value) => Number(value.replace(',', '.')));
  if (list.some((value) => !Number.isFinite(value))) return 'Numbers, with blanks or commas between.';
  return tried(() => {
    mustBeAxis({ channel: 'engineSpeed', breakpoints: list });
    return list;
  });
}

/** What is made, or the sentence why it is not. */
function tried<T>(make: () => T): T | string {
  try {
    return make();
  } catch (error) {
    return (error as Error).message;
  }
}
