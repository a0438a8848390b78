import {
  Button,
  Group,
  NumberInput,
  type NumberInputProps,
  Popover,
  SegmentedControl,
  Stack,
  TextInput,
} from '@mantine/core';
import { useState } from 'react';
import type { RunPlan } from '../../../../contract/instruments/recording.ts';
import { api } from '../../../state/api.ts';
import { useDyno } from '../../../state/dyno.ts';
import { useLive } from '../../../state/live.ts';
import { usePreferences } from '../../../state/preferences.ts';
import { useChange } from '../../../state/use-change.ts';
import { hasCurve } from '../../../../core/figures/runs/reading.ts';
import { figuredKinds } from '../../../../core/run-kinds/figures-of-kind.ts';
import { formatWhole } from '../../../../core/wording/figures.ts';
import classes from './plan.module.css';

/** How the next runs are made: how many, the rest between them, their speeds, the load's ramp, what is heard. */
export function RunPlanForm() {
  const plan = useLive((state) => state.bay?.plan);
  const [opened, setOpened] = useState(false);
  if (!plan) return null;
  return (
    <Popover opened={opened} onChange={setOpened} width={360} position="left-start" shadow="md" trapFocus>
      <Popover.Target>
        <button className={classes.how} onClick={() => setOpened(!opened)}>
          {planWords(plan)}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Fields key={JSON.stringify(plan)} plan={plan} close={() => setOpened(false)} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** A plan in a line: `3 runs a setup, 8 min apart, 2,000 to 6,800 rpm`. */
export function planWords({ repeats, coolDownMin, ...plan }: RunPlan): string {
  return `${repeats} ${repeats === 1 ? 'run' : 'runs'} a setup, ${coolDownMin} min apart; ${howWords(plan)}`;
}

function howWords({
  fromRpm,
  toRpm,
  rampRpmPerS,
  kind,
  steps,
  ofKind,
}: Omit<RunPlan, 'repeats' | 'coolDownMin'>): string {
  const ramp = rampRpmPerS === null ? '' : `, ${formatWhole(rampRpmPerS)} rpm/s`;
  switch (kind) {
    case 'step': {
      const loads = steps.loadsKpa.length > 0 ? `, each at ${steps.loadsKpa.map(formatWhole).join(', ')} kPa` : '';
      return `holds at ${steps.speedsRpm.map(formatWhole).join(', ')} rpm${loads}, ${steps.dwellS} s each`;
    }
    case 'part-load':
      return 'cell by cell, until you end it';
    case 'idle':
      return `${ofKind.idleS} s of idle`;
    case 'cold-start':
      return `${ofKind.startS} s from before the starter turns`;
    case 'transient':
      return `held at ${formatWhole(ofKind.heldRpm)} rpm, then full throttle`;
    case 'cruise':
      return `${formatWhole(ofKind.heldRpm)} rpm at ${ofKind.wheelKw} kW at the wheels for ${ofKind.cruiseS} s`;
    default: {
      const from = fromRpm === null ? 'usual start' : formatWhole(fromRpm);
      const to = toRpm === null ? 'usual end' : formatWhole(toRpm);
      return fromRpm !== null || toRpm !== null ? `${from} to ${to} rpm${ramp}` : `the car’s usual speeds${ramp}`;
    }
  }
}

function Fields({ plan, close }: { plan: RunPlan; close: () => void }) {
  const [draft, setDraft] = useState(plan);
  const [speeds, setSpeeds] = useState(plan.steps.speedsRpm.join(', '));
  const [loads, setLoads] = useState(plan.steps.loadsKpa.join(', '));
  const bay = useLive((state) => state.watched);
  const change = useChange((next: RunPlan) => api.planNext(bay, next));
  const cues = usePreferences((state) => state.cues);
  const loaded = useDyno()?.dyno?.kind !== 'inertia-roller';
  const list = numbersIn(speeds);
  const loadsKpa = numbersIn(loads);
  const badLoads = loadsKpa.some((value) => !(value >= 10 && value <= 500));
  const badSpeeds =
    list.length === 0 || list.some((value) => !Number.isInteger(value) || value < 100 || value > 30_000);
  const speed = { min: 300, max: 30_000, step: 100 };
  const badEnd = draft.fromRpm !== null && draft.toRpm !== null && draft.toRpm <= draft.fromRpm;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (badSpeeds || badEnd || badLoads) return;
        change.mutate({ ...draft, steps: { ...draft.steps, speedsRpm: list, loadsKpa } }, { onSuccess: close });
      }}
    >
      <Stack gap={10}>
        <Group grow>
          <NumberInput
            label="Runs a setup"
            min={1}
            max={30}
            value={draft.repeats}
            data-autofocus
            onChange={(value) => setDraft({ ...draft, repeats: Number(value) || 1 })}
          />
          <NumberInput
            label="Rest between, min"
            min={0}
            max={240}
            value={draft.coolDownMin}
            onChange={(value) => setDraft({ ...draft, coolDownMin: Number(value) || 0 })}
          />
        </Group>
        {draft.kind === 'step' ? (
          <>
            <TextInput
              label="Speeds to hold, rpm"
              value={speeds}
              error={badSpeeds && 'Speeds in rpm, with commas between.'}
              onChange={(event) => setSpeeds(event.currentTarget.value)}
            />
            <TextInput
              label="Each at these manifold pressures, kPa"
              placeholder="empty: full throttle"
              value={loads}
              error={badLoads && 'Absolute pressures in kPa, with commas between.'}
              onChange={(event) => setLoads(event.currentTarget.value)}
            />
            <Group grow>
              <NumberInput
                label="Each for, s"
                min={1}
                max={120}
                value={draft.steps.dwellS}
                onChange={(value) => setDraft({ ...draft, steps: { ...draft.steps, dwellS: Number(value) || 5 } })}
              />
              <NumberInput
                label="Tolerance, % a second"
                min={0.1}
                max={5}
                step={0.1}
                value={100 * draft.steps.tolerance}
                onChange={(value) =>
                  setDraft({ ...draft, steps: { ...draft.steps, tolerance: (Number(value) || 1) / 100 } })
                }
              />
            </Group>
          </>
        ) : draft.kind === 'part-load' ? null : isOfKind(draft.kind) ? (
          <KindFields draft={draft} setDraft={setDraft} />
        ) : (
          <Group grow>
            <Optional
              label="Start at, rpm"
              usual="usual"
              {...speed}
              value={draft.fromRpm}
              onChange={(fromRpm) => setDraft({ ...draft, fromRpm })}
            />
            <Optional
              label="Lift at, rpm"
              usual="usual"
              {...speed}
              value={draft.toRpm}
              error={badEnd && 'above the start'}
              onChange={(toRpm) => setDraft({ ...draft, toRpm })}
            />
          </Group>
        )}
        {loaded && hasCurve({ kind: draft.kind, state: 'sealed' }) && (
          <Optional
            label="Ramp, rpm/s"
            usual="the dyno’s own"
            min={20}
            max={5000}
            step={10}
            value={draft.rampRpmPerS}
            onChange={(rampRpmPerS) => setDraft({ ...draft, rampRpmPerS })}
          />
        )}
        <div>
          <span className="heading">Heard while recording, on this machine</span>
          <SegmentedControl
            fullWidth
            aria-label="What is heard"
            data={[
              { value: 'off', label: 'nothing' },
              { value: 'beeps', label: 'beeps' },
              { value: 'spoken', label: 'words' },
            ]}
            value={cues}
            onChange={(value) => usePreferences.setState({ cues: value as 'off' })}
          />
        </div>
        <p className={classes.small}>
          Suvok sets this on the stand-ins alone. On a real machine its maker’s controls and emergency stop rule; the
          plan is then a note for you.
        </p>
        <Group justify="flex-end" gap={8}>
          <Button variant="subtle" color="gray" size="md" onClick={close}>
            Cancel
          </Button>
          <Button
            type="submit"
            variant="default"
            size="md"
            loading={change.isPending}
            disabled={badSpeeds || badEnd || badLoads}
          >
            Apply
          </Button>
        </Group>
      </Stack>
    </form>
  );
}

const numbersIn = (text: string): number[] =>
  text
    .split(/[,;]\s*|\s+/)
    .filter(Boolean)
    .map(Number);

const isOfKind = (kind: RunPlan['kind']) => (figuredKinds as readonly RunPlan['kind'][]).includes(kind);

/** What an idle, a start, a step of the throttle or a cruise is made by. */
function KindFields({ draft, setDraft }: { draft: RunPlan; setDraft: (draft: RunPlan) => void }) {
  const { ofKind, kind } = draft;
  const field = (name: keyof RunPlan['ofKind'], label: string, min: number, max: number, step = 1) => (
    <NumberInput
      label={label}
      min={min}
      max={max}
      step={step}
      value={ofKind[name]}
      onChange={(value) => setDraft({ ...draft, ofKind: { ...ofKind, [name]: Number(value) || ofKind[name] } })}
    />
  );
  if (kind === 'idle') return field('idleS', 'Idles for, s', 15, 300, 5);
  if (kind === 'cold-start') return field('startS', 'Recorded for, s, from before the starter turns', 15, 600, 5);
  if (kind === 'transient') return field('heldRpm', 'Held speed, rpm', 500, 12_000, 100);
  return (
    <Group grow align="flex-end">
      {field('heldRpm', 'Speed, rpm', 500, 12_000, 100)}
      {field('wheelKw', 'At the wheels, kW', 0.5, 500)}
      {field('cruiseS', 'For, s', 60, 1800, 30)}
    </Group>
  );
}

interface OptionalProps extends Omit<NumberInputProps, 'value' | 'onChange' | 'placeholder'> {
  /** What stands where the field is empty. */
  usual: string;
  value: number | null;
  onChange: (value: number | null) => void;
}

/** A number that may be left to the car or the dyno: null for an empty field. */
function Optional({ usual, value, onChange, ...rest }: OptionalProps) {
  return (
    <NumberInput
      {...rest}
      placeholder={usual}
      value={value ?? ''}
      onChange={(next) => onChange(next === '' ? null : Number(next))}
    />
  );
}
