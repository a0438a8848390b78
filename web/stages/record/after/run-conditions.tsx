import { Menu, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { RunChange } from '../../../../contract/job/job-requests.ts';
import { runKinds } from '../../../../contract/instruments/recording.ts';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import { formatWhole } from '../../../../core/wording/figures.ts';
import { CircumstancesDialog } from '../../../setups/circumstances/circumstances-dialog.tsx';
import { runKindWords } from '../../../job/run-kind-words.ts';
import classes from './run-result.module.css';

/** Kind, setup and gear of a run as they were taken, each to be put right, and how it was made. */
export function RunConditions({ job, run }: { job: Job; run: Run }) {
  const change = useChange((sent: RunChange) => api.changeRun(run.id, sent));
  const [gear, setGear] = useState(run.gear ?? '');
  const [putting, setPutting] = useState(false);
  const setup = job.setups.find((candidate) => candidate.id === run.setupId);
  return (
    <div className={classes.conditions}>
      <Choice
        label="Kind"
        value={runKindWords[run.kind].name}
        options={runKinds.map((kind) => ({
          key: kind,
          text: runKindWords[kind].name,
          choose: () => change.mutate({ kind }),
        }))}
      />
      <Choice
        label="Setup"
        value={setup?.letter ?? 'none'}
        options={job.setups.map(({ id, letter, change: what }) => ({
          key: String(id),
          text: `${letter} · ${what}`,
          choose: () => id !== run.setupId && change.mutate({ setupId: id }),
        }))}
      />
      <TextInput
        className={classes.gear}
        size="md"
        aria-label="Gear of this run"
        placeholder="gear?"
        value={gear}
        onChange={(event) => setGear(event.currentTarget.value)}
        onBlur={() => gear.trim() !== (run.gear ?? '') && change.mutate({ gear: gear.trim() || null })}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      <button className={classes.choice} onClick={() => setPutting(true)}>
        Made under…
      </button>
      <small className="soft">{madeWords(run)}</small>
      <CircumstancesDialog run={run} opened={putting} onClose={() => setPutting(false)} />
    </div>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: { key: string; text: string; choose: () => void }[];
}

function Choice({ label, value, options }: ChoiceProps) {
  return (
    <Menu position="bottom-start" shadow="md">
      <Menu.Target>
        <button className={classes.choice} aria-label={`${label} of this run: ${value}`}>
          {value}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {options.map(({ key, text, choose }) => (
          <Menu.Item key={key} onClick={choose}>
            {text}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

/** How it was made, where that was planned otherwise than usual. */
function madeWords({ plan }: Run): string {
  if (!plan) return '';
  const { fromRpm, toRpm, rampRpmPerS, steps } = plan;
  return [
    steps && `holds at ${steps.speedsRpm.map(formatWhole).join(', ')} rpm`,
    fromRpm !== null && `from ${formatWhole(fromRpm)} rpm`,
    toRpm !== null && `to ${formatWhole(toRpm)} rpm`,
    rampRpmPerS !== null && `${formatWhole(rampRpmPerS)} rpm/s`,
  ]
    .filter(Boolean)
    .join(', ');
}
