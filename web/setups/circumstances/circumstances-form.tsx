import { keys } from '../../state/query-keys.ts';
import { typedFigure } from '../../units/typed-figure.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Button, Checkbox, Group, MultiSelect, NativeSelect, Select, Stack, Text, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { loadModes } from '../../../contract/job/circumstances.ts';
import type { RunChange } from '../../../contract/job/job-requests.ts';
import type { Job, Run } from '../../../contract/job/records.ts';
import { channelLabel } from '../../../core/recording/channels.ts';
import { dynoText, sameDyno, useKnownDynos } from '../../job/known-dynos.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { figuresWorker } from '../../workers/figures-worker.ts';
import { changeIn, draftOf, type CircumstancesDraft } from './circumstances-draft.ts';
import classes from './circumstances-form.module.css';
import { givenWords } from './given-words.ts';

/** What a run was made under, put right: every field as it stands, and what was recorded beside what was changed. */
export function CircumstancesForm({ job, run, onDone }: { job: Job; run: Run; onDone: () => void }) {
  const elevationM = run.dyno.altitudeM;
  const own = useOwnUnits();
  const [draft, setDraft] = useState(() => draftOf(run, elevationM, own));
  const [also, setAlso] = useState<string[]>([]);
  const [problem, setProblem] = useState<string>();
  const dynos = useKnownDynos(job);
  const { data: read } = useQuery({
    queryKey: keys.startTemperatures(run.key),
    queryFn: () => figuresWorker().startTemperatures(run),
    staleTime: Infinity,
    retry: false,
  });
  const send = useChange((change: RunChange) => api.changeRuns([run.id, ...also.map(Number)], change));
  const set = (change: Partial<CircumstancesDraft>) => setDraft((before) => ({ ...before, ...change }));
  const text = (field: keyof CircumstancesDraft & string, label: ReactNode, more: object = {}) => (
    <TextInput
      label={label}
      value={draft[field] as string}
      onChange={(event) => set({ [field]: event.currentTarget.value })}
      {...more}
    />
  );
  const number = (field: keyof CircumstancesDraft & string, label: string, unit: string, more: object = {}) =>
    text(field, <Unit label={label} unit={own.unit(unit)} />, { inputMode: 'decimal', ...more });
  const submit = () => {
    const change = changeIn(draft, run, elevationM, own);
    if (typeof change === 'string') return setProblem(change);
    setProblem(undefined);
    if (Object.keys(change).length === 0) return onDone();
    send.mutate(change, { onSuccess: onDone, onError: (error) => setProblem(error.message) });
  };
  const proposed = Object.entries(read ?? {})
    .map(([name, celsius]) => [name, Number(typedFigure(celsius, own.told('°C'), '°C'))] as const)
    .filter(([name, value]) => Number(draft.starts[name] || NaN) !== value);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <Stack gap={14}>
        <div className={classes.fields}>
          {text('startedAt', 'Date and time', { type: 'datetime-local', step: 1 })}
          {text('gear', 'Gear', { placeholder: '4th' })}
          <NativeSelect
            label="Strapped anew before it"
            data={[{ value: '', label: 'by the hours between runs' }, 'yes', 'no']}
            value={draft.remounted}
            onChange={(event) => set({ remounted: event.currentTarget.value as CircumstancesDraft['remounted'] })}
          />
          <NativeSelect
            label="Load"
            data={[{ value: '', label: 'as dyno and plan say' }, ...loadModes]}
            value={draft.loadMode}
            onChange={(event) => set({ loadMode: event.currentTarget.value })}
          />
        </div>

        <Part name="Air at the engine’s inlet" five>
          {number('temperatureC', 'Temperature', '°C')}
          {number('pressureHpa', 'Pressure', 'hPa')}
          <NativeSelect
            label="Pressure is"
            data={[
              { value: 'station', label: 'of the place' },
              { value: 'sea level', label: 'at sea level' },
            ]}
            value={draft.pressureAt}
            onChange={(event) => set({ pressureAt: event.currentTarget.value as CircumstancesDraft['pressureAt'] })}
          />
          {draft.pressureAt === 'sea level' && number('elevationM', 'Height of the place', 'm')}
          <NativeSelect
            label="Moisture by"
            data={[{ value: 'humidity', label: 'relative humidity' }, 'dew point', 'wet bulb']}
            value={draft.moistureBy}
            onChange={(event) =>
              set({ moistureBy: event.currentTarget.value as CircumstancesDraft['moistureBy'], moisture: '' })
            }
          />
          {draft.moistureBy === 'humidity'
            ? number('moisture', 'Humidity', '%')
            : number('moisture', draft.moistureBy === 'dew point' ? 'Dew point' : 'Wet bulb', '°C')}
          {draft.moistureBy === 'wet bulb' && (
            <Checkbox
              label="with a fan on it"
              checked={draft.ventilated}
              onChange={(event) => set({ ventilated: event.currentTarget.checked })}
            />
          )}
        </Part>

        <Part name="At the start">
          {Object.entries(draft.starts).map(([name, value]) => (
            <TextInput
              key={name}
              label={<Unit label={channelLabel(name)} unit={own.unit('°C')} />}
              inputMode="decimal"
              value={value}
              onChange={(event) => set({ starts: { ...draft.starts, [name]: event.currentTarget.value } })}
            />
          ))}
          {proposed.length > 0 && (
            <Button
              className={classes.low}
              variant="default"
              onClick={() =>
                set({
                  starts: {
                    ...draft.starts,
                    ...Object.fromEntries(proposed.map(([name, value]) => [name, String(value)])),
                  },
                })
              }
            >
              As its channels read it
            </Button>
          )}
        </Part>

        <Part name="Fuel, tyres, air flow, machine">
          {text('fuelName', 'Fuel', { placeholder: 'E10' })}
          {number('ethanolPct', 'Ethanol', '% by volume')}
          {text('tyres', 'Tyres', { placeholder: '195/60 R15, road' })}
          {number('tyrePressureKpa', 'Tyre pressure', 'kPa')}
          {text('fan', 'Fan', { placeholder: 'full, in front' })}
          {text('bonnet', 'Bonnet', { placeholder: 'open' })}
          <Select
            className={classes.wide}
            label="Dyno"
            data={dynos.map(({ value, label }) => ({ value, label }))}
            value={dynos.find(({ dyno }) => sameDyno(dyno, draft.dyno))?.value ?? null}
            placeholder={dynoText(draft.dyno)}
            allowDeselect={false}
            onChange={(value) => set({ dyno: dynos.find((one) => one.value === value)?.dyno ?? draft.dyno })}
          />
          {run.engineToDrumRatio !== null && number('ratio', 'Engine ÷ drum speed', '')}
        </Part>

        {Object.keys(run.given).length > 0 && (
          <Text size="sm" c="dimmed">
            Recorded first: {givenWords(run.given, own)}.
          </Text>
        )}
        <MultiSelect
          label="Say the same of"
          description="What is changed above is then said of these runs too, in one act."
          data={job.runs
            .filter(({ id, state }) => id !== run.id && state !== 'recording')
            .map(({ id, label }) => ({ value: String(id), label: label ?? `run ${id}` }))}
          value={also}
          onChange={setAlso}
          placeholder={also.length === 0 ? 'this run alone' : undefined}
        />
        {problem && (
          <Text size="sm" c="var(--stop)" role="alert">
            {problem}
          </Text>
        )}
        <Group justify="flex-end">
          <Button variant="subtle" color="gray" onClick={onDone}>
            Cancel
          </Button>
          <Button type="submit" loading={send.isPending}>
            Put right
          </Button>
        </Group>
      </Stack>
    </form>
  );
}

function Part({ name, five = false, children }: { name: string; five?: boolean; children: ReactNode }) {
  return (
    <fieldset className={classes.part}>
      <legend>{name}</legend>
      <div className={classes.fields} data-five={five || undefined}>
        {children}
      </div>
    </fieldset>
  );
}

const Unit = ({ label, unit }: { label: string; unit: string }) => (
  <>
    {label} <span className="soft">{unit}</span>
  </>
);
