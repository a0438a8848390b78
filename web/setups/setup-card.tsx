import { useUnits } from '../units/use-own-units.tsx';
import { useState } from 'react';
import type { Job, Run, Setup } from '../../contract/job/records.ts';
import type { UnusableRun } from '../../core/figures/runs/figured-run.ts';
import { gainOnParent, type SetupFigures } from '../../core/figures/pairs/setup-figures.ts';
import { predictionWords } from '../../core/wording/decision-record.ts';
import { jobClaimWords, toneOf } from '../../core/wording/judgement-words.ts';
import { setupWords } from '../../core/setup/setup-words.ts';
import { scorePrediction } from '../../core/setup/prediction.ts';
import { formatPower, powerDifference, signed } from '../../core/wording/figures.ts';
import { missedBands } from '../../core/judgement/pair-judgement.ts';
import { otherRangeWords } from '../../core/wording/coverage-words.ts';
import { GainStrip } from './gain-strip.tsx';
import { RunChip } from './run-chip.tsx';
import { SetupDetails } from './setup-details.tsx';
import { setupColour } from '../../core/scene/setup-look.ts';
import classes from './setup-card.module.css';

interface SetupCardProps {
  job: Job;
  setup: Setup;
  /** How far it stands to the right: a branch of a branch stands further. */
  depth: number;
  parent: Setup | undefined;
  previous: Setup | undefined;
  runs: Run[];
  figures: SetupFigures | undefined;
  /** The figures are still being made. */
  pending: boolean;
  /** They are estimates for the crank. */
  estimated: boolean;
  unusable: UnusableRun[];
  /** Limits that runs went beyond, in words, by run. */
  broken: ReadonlyMap<number, readonly string[]>;
  /** Setups that are judged together. */
  among: number;
  /** What a decision on it would rest on. */
  decidedOn: string;
  baseline: Setup;
  chosen: boolean;
  choosing: string;
  onChoose: () => void;
  onAdded: (setup: Setup) => void;
}

/** One setup: its letter, what changed, what it gave and its runs. */
export function SetupCard({
  job,
  setup,
  depth,
  parent,
  previous,
  runs,
  figures,
  pending,
  estimated,
  unusable,
  broken,
  among,
  decidedOn,
  baseline,
  chosen,
  choosing,
  onChoose,
  onAdded,
}: SetupCardProps) {
  // The details are made when they are first opened.
  const [opened, setOpened] = useState<boolean>();
  const branch = parent !== undefined && parent.id !== previous?.id;
  const isBaseline = setup.id === baseline.id;
  const words = setupWords(job.setups, setup);
  const colour = setupColour(setup.letter, isBaseline);
  return (
    <li
      className={classes.card}
      data-back={setup.decision === 'go back' || undefined}
      data-branch={branch || undefined}
      style={{ '--hue': colour, '--depth': depth } as React.CSSProperties}
    >
      <button
        className={chosen ? classes.letterChosen : classes.letter}
        onClick={onChoose}
        aria-pressed={chosen}
        aria-label={`Setup ${setup.letter}: ${choosing}`}
        title={choosing}
      >
        {setup.letter}
      </button>
      <button
        className={classes.what}
        onClick={() => setOpened(true)}
        aria-label={`${words}: all about setup ${setup.letter}`}
        title="What changed, prediction, files, decision"
      >
        {parent && parent.id !== previous?.id && setup.items.length > 0 && (
          <span className={classes.branch}>from {parent.letter}: </span>
        )}
        {words}
      </button>
      {opened !== undefined && (
        <SetupDetails
          job={job}
          setup={setup}
          figures={figures}
          decidedOn={decidedOn}
          opened={opened}
          onClose={() => setOpened(false)}
          onAdded={onAdded}
        />
      )}
      <div className={classes.rest}>
        <SetupMeaning
          figures={figures}
          pending={pending && runs.length > 0}
          isBaseline={isBaseline}
          letter={setup.letter}
          among={among}
          baseline={baseline}
        />
        {/* What was expected is a figure at the wheels: an estimate for the crank does not score it. */}
        <SetupState setup={setup} figures={estimated ? undefined : figures} ran={runs.length > 0} />
        {figures?.gainRpm && figures.gainKw && (
          <GainStrip
            rpm={figures.gainRpm}
            gainKw={figures.gainKw}
            called={toneOf(figures.onBaseline?.jobClaim ?? null) !== undefined}
          />
        )}
        {runs.length > 0 && (
          <div className={classes.chips}>
            {runs.map((run) => (
              <RunChip
                key={run.id}
                run={run}
                chosen={chosen}
                unusable={unusable.find((candidate) => candidate.id === run.id)?.why}
                broken={broken.get(run.id)}
              />
            ))}
          </div>
        )}
      </div>
    </li>
  );
}

const decisionWords = { keep: 'kept', 'go back': 'went back', 'try further': 'trying further' } as const;

/** How a setup stands: expected, scored, decided. */
function SetupState({ setup, figures, ran }: { setup: Setup; figures: SetupFigures | undefined; ran: boolean }) {
  const unit = useUnits().power;
  const parts: string[] = [];
  if (setup.predictionKw !== null) {
    const score = scorePrediction({ gainKw: setup.predictionKw }, figures && gainOnParent(figures, setup));
    const expected = `expected ${signed(formatPower(setup.predictionKw, unit))} ${unit}`;
    parts.push(ran && score !== 'open' ? `${expected}: ${predictionWords[score]}` : expected);
  }
  if (setup.decision)
    parts.push(`${decisionWords[setup.decision]}${setup.decisionWhy ? `: ${setup.decisionWhy}` : ''}`);
  else if (!ran && setup.parentId !== null) parts.push('not run yet');
  return parts.length > 0 ? <div className={classes.meaning}>{parts.join(' · ')}</div> : null;
}

interface SetupMeaningProps {
  figures: SetupFigures | undefined;
  pending: boolean;
  isBaseline: boolean;
  letter: string;
  among: number;
  baseline: Setup;
}

function SetupMeaning({ figures, pending, isBaseline, letter, among, baseline }: SetupMeaningProps) {
  const unit = useUnits().power;
  if (!figures && !pending) return null;
  if (!figures) return <div className={classes.meaning}>making the figures…</div>;
  const { onBaseline } = figures;
  if (isBaseline || !onBaseline) {
    const spreadWords = Number.isNaN(figures.spreadKw) ? 'one run' : `spread ${formatPower(figures.spreadKw, unit)}`;
    return (
      <div className={classes.meaning}>
        <span className="number">
          peak {formatPower(figures.peakKw, unit)} {unit}
        </span>{' '}
        · {spreadWords}
        {isBaseline && ' · baseline'}
      </div>
    );
  }
  const { difference, halfWidth } = onBaseline.difference;
  const { figure, half } = powerDifference(difference, halfWidth, unit);
  const words = jobClaimWords(onBaseline, among, { test: letter, against: baseline.letter });
  return (
    <div className={classes.meaning}>
      {missedBands(onBaseline).length === 0 && (
        <span className={`number ${toneOf(onBaseline.jobClaim) ?? ''}`}>
          {figure}
          {half} {unit}{' '}
        </span>
      )}
      on {baseline.letter}
      {otherRangeWords(onBaseline)}
      {words && `, ${words}`}
    </div>
  );
}
