import { Button, Group, NumberInput, Popover, Radio, Slider, Stack, Text } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import type { Job } from '../../../contract/records.ts';
import { standardIds, standards } from '../../../core/air/correction.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { powerUnits, torqueUnits } from '../../../core/units/units.ts';
import { usePreferences } from '../../state/preferences.ts';
import { formatRpm, formatWhole } from '../../ui/figures.ts';
import classes from './how-made.module.css';
import type { ChangeView, CompareView } from './view.ts';

interface HowMadeProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** How the figures were made, each part of it a control. */
export function HowMade({ job, figures, view, change }: HowMadeProps) {
  const ran = job.setups.filter((setup) => job.runs.some((run) => run.setupId === setup.id));
  const auto = view.smoothing === 'auto';
  const spanText = figures.spanRpm === 0 ? 'none' : `${auto ? 'auto, ' : ''}${formatWhole(figures.spanRpm)} rpm`;
  return (
    <div className={classes.how}>
      <span>
        {view.standard === 'none' ? '' : 'Corrected to '}
        <Control text={standards[view.standard].name} label="Correction standard">
          <StandardChoice view={view} change={change} />
        </Control>{' '}
        {figures.factors && view.standard !== 'none' && <span className="number">{factorText(figures.factors)}</span>}
        {view.share < 1 && ` at ${Math.round(view.share * 100)} % share`}
      </span>
      <span>
        smoothing{' '}
        <Control text={spanText} label="Smoothing">
          <SmoothingChoice spanRpm={auto ? figures.spanRpm : Number(view.smoothing)} auto={auto} change={change} />
        </Control>
      </span>
      <span>at the wheels</span>
      <span>
        <Control text={view.powerUnit} label="Unit of power">
          <Choice
            options={powerUnits}
            value={view.powerUnit}
            onChange={(power) => remember('powerUnit', power, () => change({ power }))}
          />
        </Control>{' '}
        and{' '}
        <Control text={view.torqueUnit} label="Unit of torque">
          <Choice
            options={torqueUnits}
            value={view.torqueUnit}
            onChange={(torque) => remember('torqueUnit', torque, () => change({ torque }))}
          />
        </Control>
      </span>
      <span>
        over{' '}
        <Control text={bandText(figures, view)} label="Range that the sentence is about">
          <BandChoice figures={figures} view={view} change={change} />
        </Control>
      </span>
      <span>
        {view.test.letter} against{' '}
        <Control
          text={`${view.against.letter}${view.against.id === view.test.parentId ? ', its parent' : ''}`}
          label="Compare against"
        >
          <Choice
            options={ran.filter((setup) => setup.id !== view.test.id).map((setup) => setup.letter)}
            value={view.against.letter}
            onChange={(against) => change({ against })}
          />
        </Control>
      </span>
      <span>
        baseline{' '}
        <Control text={view.baseline.letter} label="Baseline">
          <Choice
            options={ran.map((setup) => setup.letter)}
            value={view.baseline.letter}
            onChange={(baseline) => change({ baseline })}
          />
        </Control>
      </span>
    </div>
  );
}

function bandText({ comparison }: JobFigures, { band }: CompareView): string {
  if (band) return `${formatRpm(band[0])}–${formatRpm(band[1])} rpm`;
  return comparison ? 'the common range' : 'no range';
}

function factorText([least, most]: readonly [number, number]): string {
  const text = (factor: number) => factor.toFixed(3);
  return text(least) === text(most) ? `×${text(least)}` : `×${text(least)}–${text(most)}`;
}

function remember(field: 'powerUnit' | 'torqueUnit' | 'standard', value: string, change: () => void): void {
  usePreferences.setState({ [field]: value });
  change();
}

/** A word in the text that opens what it can be changed to. */
function Control({ text, label, children }: { text: string; label: string; children: ReactNode }) {
  return (
    <Popover position="bottom-start" shadow="md" width="auto" trapFocus>
      <Popover.Target>
        <button className={classes.control} aria-label={`${label}: ${text}`}>
          {text}
        </button>
      </Popover.Target>
      <Popover.Dropdown>{children}</Popover.Dropdown>
    </Popover>
  );
}

function Choice<T extends string>({
  options,
  value,
  onChange,
}: {
  options: readonly T[];
  value: string;
  onChange: (value: T) => void;
}) {
  return (
    <Radio.Group value={value} onChange={(chosen) => onChange(chosen as T)}>
      <Stack gap={8}>
        {options.map((option) => (
          <Radio key={option} value={option} label={option} />
        ))}
      </Stack>
    </Radio.Group>
  );
}

function StandardChoice({ view, change }: { view: CompareView; change: ChangeView }) {
  return (
    <Stack gap={14} w={330}>
      <Radio.Group
        value={view.standard}
        onChange={(standard) => remember('standard', standard, () => change({ standard }))}
        aria-label="Correction standard"
      >
        <Stack gap={9}>
          {standardIds.map((id) => (
            <Radio key={id} value={id} label={standards[id].name} description={standards[id].reference} />
          ))}
        </Stack>
      </Radio.Group>
      <div>
        <Text size="sm" fw={600}>
          Share of the correction that is applied
        </Text>
        <Text size="xs" c="dimmed" mb={6}>
          Less than 100 % for an engine that holds its boost to a target.
        </Text>
        <Slider
          thumbLabel="Share of the correction"
          value={view.share * 100}
          onChange={(share) => change({ share: share === 100 ? undefined : share })}
          step={5}
          label={(share) => `${share} %`}
          mb={18}
          marks={[
            { value: 0, label: '0' },
            { value: 100, label: '100 %' },
          ]}
        />
      </div>
    </Stack>
  );
}

const widestSpan = 600;

function SmoothingChoice({ spanRpm, auto, change }: { spanRpm: number; auto: boolean; change: ChangeView }) {
  const set = (span: number) => change({ smoothing: span, span: undefined });
  return (
    <Stack gap={12} w={300}>
      <Text size="sm">
        Each point is fitted over this span of engine speed: <b className="number">{formatWhole(spanRpm)} rpm</b>
      </Text>
      <Slider
        thumbLabel="Smoothing span"
        value={spanRpm}
        onChange={set}
        min={0}
        max={widestSpan}
        step={10}
        label={null}
        mb={18}
        marks={[
          { value: 0, label: 'none' },
          { value: widestSpan, label: `${widestSpan} rpm` },
        ]}
      />
      <Group justify="space-between" wrap="nowrap">
        <Text size="xs" c="dimmed">
          {auto
            ? 'Auto, found on the baseline’s runs and kept.'
            : 'Auto finds the span with the least error on the baseline’s runs.'}
        </Text>
        <Button variant="default" size="sm" flex="none" onClick={() => change({ smoothing: 'auto', span: undefined })}>
          {auto ? 'Find anew' : 'Auto'}
        </Button>
      </Group>
    </Stack>
  );
}

/** A band by its numbers, for those who would not drag on the axis. */
function BandChoice({ figures, view, change }: { figures: JobFigures; view: CompareView; change: ChangeView }) {
  const { comparison } = figures;
  const common = comparison && ([comparison.power.fromRpm, comparison.power.toRpm] as const);
  const [from, setFrom] = useState<number | string>(view.band?.[0] ?? common?.[0] ?? '');
  const [to, setTo] = useState<number | string>(view.band?.[1] ?? common?.[1] ?? '');
  const usable = Number(to) > Number(from);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (usable) change({ band: `${Math.round(Number(from))}-${Math.round(Number(to))}` });
      }}
    >
      <Stack gap={10} w={260}>
        <Text size="xs" c="dimmed">
          Choose the band that matters before looking at the gain in it: the best of many bands is luck. It can also be
          dragged on the speed axis.
        </Text>
        <Group grow>
          <NumberInput label="from, rpm" value={from} onChange={setFrom} min={0} max={30_000} step={100} />
          <NumberInput
            label="to, rpm"
            value={to}
            onChange={setTo}
            min={0}
            max={30_000}
            step={100}
            error={usable ? undefined : 'not above “from”'}
          />
        </Group>
        <Group justify="space-between">
          <Button variant="subtle" color="gray" size="sm" onClick={() => change({ band: undefined })}>
            Common range
          </Button>
          <Button type="submit" variant="default" size="sm" disabled={!usable}>
            Use band
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
