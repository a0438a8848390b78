import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { peakBound, formatPower, formatRpm, formatTorque } from '../../../../core/wording/figures.ts';
import { Button, Group, TextInput } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { RunChange } from '../../../../contract/job/job-requests.ts';
import { IconCheck } from '@tabler/icons-react';
import { Link } from 'react-router';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import { hasCurve } from '../../../../core/figures/runs/reading.ts';
import { isCompared } from '../../../../core/run-kinds/figures-of-kind.ts';
import { runAdvice } from '../../../../core/advice/run-advice.ts';
import { api } from '../../../state/api.ts';
import { useLive } from '../../../state/live.ts';
import { useChange } from '../../../state/use-change.ts';
import { isTextField } from '../../../ui/text-field.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { FuellingResult } from './fuelling-result.tsx';
import { findingsOf } from './result-findings.ts';
import { KindResult } from './kind-result.tsx';
import { MeasuredFigures } from './measured-figures.tsx';
import { OnBaseline } from './on-baseline.tsx';
import { RunConditions } from './run-conditions.tsx';
import { runKindWords } from '../../../job/run-kind-words.ts';
import { StrapsAgain, strapChecks } from './straps-again.tsx';
import { WhatChanged } from './what-changed.tsx';
import classes from './run-result.module.css';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';

interface RunResultProps {
  job: Job;
  run: Run;
  setup: Setup;
  baseline: Setup;
  figures: JobFigures | undefined;
  /** A setup that was begun from here. */
  onAdded: (setup: Setup) => void;
  onDone: () => void;
}

/** A run's figures a moment after the lift, what they say, and what the operator says of them. */
export function RunResult({ job, run, setup, baseline, figures, onAdded, onDone }: RunResultProps) {
  const { power: powerUnit, torque: torqueUnit, write } = useOwnUnits();
  const change = useChange((sent: RunChange) => api.changeRun(run.id, sent));
  const runFigures = figures?.runs.find((candidate) => candidate.id === run.id);
  const inLog = run.label === null ? 0 : (runFigures?.found ?? []).filter(({ from }) => from === 'log').length;
  const unusable = figures?.unusable.find((candidate) => candidate.id === run.id);
  // What a power run is compared by says nothing of another kind.
  const swept = hasCurve(run);
  const compared = swept && setup.parentId !== null && run.setupId === setup.id ? figures?.comparison : undefined;
  return (
    <section aria-live="polite">
      <h2 className={classes.label}>
        {run.label ?? 'Kept'}{' '}
        <span>
          {run.setAsideReason !== null ? 'set aside' : run.kind === 'power' ? 'counted' : runKindWords[run.kind].name}
        </span>
      </h2>
      {runFigures && (
        <dl className={classes.figures} data-testid="run-figures">
          <div>
            <dt>{peakBound(runFigures.curve.peakPower) ? 'power, at least' : 'peak power'}</dt>
            <dd>
              <b className="number">{formatPower(runFigures.curve.peakPower.value, powerUnit)}</b> {powerUnit}
              <small>at {formatRpm(runFigures.curve.peakPower.rpm)} rpm</small>
            </dd>
          </div>
          <div>
            <dt>{peakBound(runFigures.curve.peakTorque) ? 'torque, at least' : 'peak torque'}</dt>
            <dd>
              <b className="number">{formatTorque(runFigures.curve.peakTorque.value, torqueUnit)}</b> {torqueUnit}
              <small>at {formatRpm(runFigures.curve.peakTorque.rpm)} rpm</small>
            </dd>
          </div>
        </dl>
      )}
      {(run.kind === 'step' || run.kind === 'coast-down') && <MeasuredFigures run={run} />}
      {(run.kind === 'part-load' || (run.plan?.steps?.loadsKpa.length ?? 0) > 0) && (
        <FuellingResult job={job} run={run} />
      )}
      {isCompared(run.kind) && run.kind !== 'step' && <KindResult job={job} run={run} />}
      {!runFigures && !unusable && swept && <p className="soft">Making the figures…</p>}
      {runFigures?.curve.checks.some(({ id }) => strapChecks.includes(id)) && <StrapsAgain job={job} run={run} />}
      {compared && (
        <p className={classes.sentence}>
          {compared.sentence.map((phrase, index) => (
            <span key={index} className={phrase.tone}>
              {write(phrase.text)}
            </span>
          ))}
        </p>
      )}
      {compared && setup.parentId !== baseline.id && <OnBaseline setup={setup} baseline={baseline} figures={figures} />}
      <FindingList>
        {findingsOf({
          job,
          run,
          baseline,
          found: runFigures?.found ?? [],
          unusable: unusable?.why,
        }).map(({ severity, text }) => (
          <FindingLine key={write(text)} severity={severity}>
            {write(text)}
          </FindingLine>
        ))}
      </FindingList>
      {inLog > 0 && (
        <Link className={classes.log} to={`../logs?run=${run.label}`} relative="path">
          {inLog === 1 ? 'See it in the log' : `See all ${inLog} in the log`}
        </Link>
      )}
      <RunConditions job={job} run={run} />
      <WhatChanged job={job} setup={setup} onAdded={onAdded} />
      <button className={classes.done} onClick={onDone}>
        Back to plan and heat
      </button>
      <div className={classes.foot}>
        {swept && <NextAction job={job} setup={setup} baseline={baseline} figures={figures} />}
        <div className={classes.acts}>
          <Note run={run} onSave={(note) => change.mutate({ note })} />
          <Counting run={run} onChange={(setAsideReason) => change.mutate({ setAsideReason })} />
        </div>
      </div>
    </section>
  );
}

/** The one thing to do next, and how long to cool before it. */
function NextAction({ job, setup, baseline, figures }: Pick<RunResultProps, 'job' | 'setup' | 'baseline' | 'figures'>) {
  const plan = useLive((state) => state.bay?.plan);
  if (!plan || !figures) return null;
  const advice = runAdvice(job, setup, baseline, figures, plan.repeats).find(
    ({ id }) => id === 'next' || id === 'bracket',
  );
  if (!advice) return null;
  const cool = plan.coolDownMin > 0 ? ` Cool for ${plan.coolDownMin} min first.` : '';
  return (
    <p className={classes.action} data-testid="next-action">
      <b>Next</b> {advice.text}
      {cool}
    </p>
  );
}

/** One line about the run. Typing a letter anywhere goes here. */
function Note({ run, onSave }: { run: Run; onSave: (note: string) => void }) {
  const [note, setNote] = useState(run.note);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const focus = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTextField(event.target)) return;
      if (/^\p{L}$/u.test(event.key)) field.current?.focus();
    };
    document.addEventListener('keydown', focus);
    return () => document.removeEventListener('keydown', focus);
  }, []);
  const save = () => note !== run.note && onSave(note);
  return (
    <TextInput
      ref={field}
      className={classes.note}
      size="md"
      aria-label="Note on this run"
      placeholder="Note: just type"
      value={note}
      onChange={(event) => setNote(event.currentTarget.value)}
      rightSection={note !== '' && note === run.note && <IconCheck size={18} aria-label="Kept" />}
      onBlur={save}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur();
      }}
    />
  );
}

function Counting({ run, onChange }: { run: Run; onChange: (reason: string | null) => void }) {
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  if (run.setAsideReason !== null) {
    return (
      <Group gap={8}>
        <span className="soft">Set aside: {run.setAsideReason}</span>
        <Button variant="default" size="md" onClick={() => onChange(null)}>
          Count it
        </Button>
      </Group>
    );
  }
  if (!asking) {
    return (
      <Button variant="default" size="md" onClick={() => setAsking(true)}>
        Set aside…
      </Button>
    );
  }
  return (
    <form
      className={classes.reason}
      onSubmit={(event) => {
        event.preventDefault();
        if (!reason.trim()) return;
        onChange(reason);
        setAsking(false);
      }}
    >
      <TextInput
        size="md"
        autoFocus
        label="Set aside because"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        placeholder="slipped, hot, wrong gear…"
      />
      <Group gap={8}>
        <Button type="submit" variant="default" size="md" disabled={!reason.trim()}>
          Set aside
        </Button>
        <Button variant="subtle" color="gray" size="md" onClick={() => setAsking(false)}>
          It counts
        </Button>
      </Group>
    </form>
  );
}
