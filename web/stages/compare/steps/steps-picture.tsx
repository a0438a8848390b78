import type { MeanDifference } from '../../../../core/statistics/mean-difference.ts';
import type { Job } from '../../../../contract/job/records.ts';
import type { AttributedStep } from '../../../../core/comparison/attribution.ts';
import type { FamilyPair } from '../../../../core/judgement/job-claims.ts';
import { judgedElsewhereWords } from '../../../../core/wording/coverage-words.ts';
import { jobClaimWords, toneOf } from '../../../../core/wording/judgement-words.ts';
import { judgedOfStep } from '../../../../core/figures/runs/kinds-of-job.ts';
import { testsWords } from '../../../../core/wording/kind-words.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { setupColour } from '../../../../core/scene/setup-look.ts';
import { formatPower, formatRpm, powerDifference, scaleNote } from '../../../../core/wording/figures.ts';
import classes from './steps-picture.module.css';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface StepsPictureProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  onChoose: (letter: string) => void;
}

/** The ladder of setups: what each step on the way to the compared one gave, and whether the steps add up to the whole. */
export function StepsPicture({ job, figures, view, onChoose }: StepsPictureProps) {
  const { attribution } = figures;
  const { write } = useOwnUnits();
  if (!attribution)
    return (
      <div className={classes.none}>
        <h2>No ladder yet</h2>
        <p>
          Two run setups, one changed from the other, make a ladder: each step with what it gave. Record a second setup.
        </p>
      </div>
    );
  const { steps, whole, fromRpm, toRpm, notAlike } = attribution;
  const unit = view.units.power;
  const drifted = [whole, ...steps.flatMap(({ gain }) => gain ?? [])].some(({ withoutDrift }) => withoutDrift);
  const told = ({ difference, halfWidth }: MeanDifference) => powerDifference(difference, halfWidth, unit);
  const first = steps[0]!.meanKw;
  // Each bar begins where the one before ended.
  const ends = steps.map(({ meanKw }) => meanKw - first);
  const halves = steps.map(({ gain }) => (gain && !Number.isNaN(gain.halfWidth) ? gain.halfWidth : 0));
  const least = Math.min(0, ...ends.map((end, index) => end - halves[index]!));
  const most = Math.max(0.5, ...ends.map((end, index) => end + halves[index]!));
  const share = (value: number) => ((value - least) / (most - least)) * 100;
  const figuresOf = (id: number) => figures.setups.find(({ setupId }) => setupId === id);
  const judgementOf = (step: AttributedStep) => {
    const pair = figuresOf(step.setupId)?.onParent ?? figuresOf(step.setupId)?.onBaseline;
    return pair?.againstId === step.beforeId ? pair : undefined;
  };
  // Only against the step that it stands under.
  const testsOf = ({ setupId, beforeId }: AttributedStep, index: number) => {
    const isStep = index > 0 && job.setups.some(({ id, parentId }) => id === setupId && parentId === beforeId);
    return isStep ? testsWords(judgedOfStep(figures.tests, setupId)).map((words) => write(words)) : [];
  };
  const delivered = job.setups.find((setup) => setup.id === job.deliveredSetupId)?.letter;
  return (
    <section className={classes.picture} aria-label="Steps" tabIndex={0}>
      <header>
        <h2>What each step gave</h2>
        <p>
          Mean power from {formatRpm(fromRpm)} to {formatRpm(toRpm)} rpm, which every run covers; ± is a 95 % interval.{' '}
          {drifted
            ? 'Where the drift from run to run is taken out, the steps need not add up.'
            : notAlike
              ? 'The total holds what was not alike, too.'
              : 'The steps add up to the whole.'}
          {figures.estimate !== undefined && `${scaleNote(figures)}.`}
        </p>
      </header>
      <table className={classes.ladder} data-testid="ladder">
        <thead>
          <tr>
            <th>setup</th>
            <th>what changed</th>
            <th>
              <span className="seen-by-readers">gain as a bar</span>
            </th>
            <th>gain on the step before, {unit}</th>
            <th>mean, {unit}</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((step, index) => (
            <tr key={step.letter} data-step={step.letter}>
              <td>
                <button
                  className={classes.letter}
                  style={{ background: setupColour(step.letter, index === 0) }}
                  onClick={() => onChoose(step.letter)}
                  title={`Compare ${step.letter} with its parent`}
                >
                  {step.letter}
                </button>
              </td>
              <td>
                {step.change}
                <small>
                  {wordsOf(
                    step,
                    index,
                    steps,
                    step.setupId === figures.bestId,
                    delivered,
                    judgementOf(step),
                    figures.setups.length,
                    attribution,
                  )}
                </small>
                {testsOf(step, index).map((words) => (
                  <small key={words}>{words}</small>
                ))}
              </td>
              <td className={classes.bars}>
                {index > 0 && (
                  <Bar
                    from={share(ends[index - 1]!)}
                    to={share(ends[index]!)}
                    half={(halves[index]! / (most - least)) * 100}
                    tone={toneOf(judgementOf(step)?.jobClaim ?? null)}
                  />
                )}
                <i className={classes.zero} style={{ left: `${share(0)}%` }} />
              </td>
              <td className="number">
                {step.gain && (
                  <>
                    <b className={toneOf(judgementOf(step)?.jobClaim ?? null)}>{told(step.gain).figure}</b>
                    {told(step.gain).half}
                  </>
                )}
              </td>
              <td className="number">{formatPower(step.meanKw, unit)}</td>
            </tr>
          ))}
          <tr className={classes.whole}>
            <td />
            <td>
              total, {steps[steps.length - 1]!.letter} against {steps[0]!.letter}
              {notAlike && <small data-testid="total-not-alike">not like for like: {write(notAlike.message)}</small>}
            </td>
            <td className={classes.bars}>
              <i className={classes.zero} style={{ left: `${share(0)}%` }} />
            </td>
            <td className="number">
              <b>{told(whole).figure}</b>
              {told(whole).half}
            </td>
            <td />
          </tr>
        </tbody>
      </table>
    </section>
  );
}

function Bar({
  from,
  to,
  half,
  tone = 'open',
}: {
  from: number;
  to: number;
  half: number;
  tone?: 'gain' | 'loss' | 'open' | undefined;
}) {
  const [left, right] = from < to ? [from, to] : [to, from];
  return (
    <>
      <span className={classes[tone]} style={{ left: `${left}%`, width: `${Math.max(0.4, right - left)}%` }} />
      {half > 0 && <span className={classes.whisker} style={{ left: `${to - half}%`, width: `${2 * half}%` }} />}
    </>
  );
}

function wordsOf(
  step: AttributedStep,
  index: number,
  steps: readonly AttributedStep[],
  isBest: boolean,
  delivered: string | undefined,
  pair: FamilyPair | undefined,
  setups: number,
  range: { fromRpm: number; toRpm: number },
): string {
  return [
    index === 0 && 'arrived',
    isBest && 'best so far',
    step.letter === delivered && 'delivered',
    step.inseparable && `${step.items} things at once: cannot be split`,
    index > 0 && pair && judgedElsewhereWords(pair, range),
    index > 0 && pair && jobClaimWords(pair, setups, { test: step.letter, against: steps[index - 1]!.letter }),
    `${step.runs} ${step.runs === 1 ? 'run' : 'runs'}`,
  ]
    .filter(Boolean)
    .join(' · ');
}
