import type { Run, Setup } from '../../contract/records.ts';
import type { UnusableRun } from '../../core/gain/figured-run.ts';
import type { SetupFigures } from '../../core/gain/setup-figures.ts';
import { usePreferences } from '../state/preferences.ts';
import { formatPower, signed } from '../ui/figures.ts';

import { GainStrip } from './gain-strip.tsx';
import { RunChip } from './run-chip.tsx';
import { setupColour } from './setup-colour.ts';
import classes from './setup-card.module.css';

interface SetupCardProps {
  setup: Setup;
  parent: Setup | undefined;
  previous: Setup | undefined;
  runs: Run[];
  figures: SetupFigures | undefined;
  /** The figures are still being made. */
  pending: boolean;
  unusable: UnusableRun[];
  baseline: Setup;
  chosen: boolean;
  choosing: string;
  onChoose: () => void;
}

/** One setup: its letter, what changed, what it gave and its runs. */
export function SetupCard({
  setup,
  parent,
  previous,
  runs,
  figures,
  pending,
  unusable,
  baseline,
  chosen,
  choosing,
  onChoose,
}: SetupCardProps) {
  const isBaseline = setup.id === baseline.id;
  const colour = setupColour(setup.letter, isBaseline);
  return (
    <li className={classes.card} style={{ '--hue': colour } as React.CSSProperties}>
      <button
        className={chosen ? classes.letterChosen : classes.letter}
        onClick={onChoose}
        aria-pressed={chosen}
        aria-label={`Setup ${setup.letter}: ${choosing}`}
        title={choosing}
      >
        {setup.letter}
      </button>
      <div className={classes.what}>
        {setup.change}
        {parent && parent.id !== previous?.id && <span className={classes.branch}> from {parent.letter}</span>}
      </div>
      <div className={classes.rest}>
        <SetupMeaning
          figures={figures}
          pending={pending && runs.length > 0}
          isBaseline={isBaseline}
          baseline={baseline}
        />
        {figures?.gainRpm && figures.gainKw && (
          <GainStrip
            rpm={figures.gainRpm}
            gainKw={figures.gainKw}
            called={figures.verdict === 'gain' || figures.verdict === 'loss'}
          />
        )}
        {runs.length > 0 && (
          <div className={classes.chips}>
            {runs.map((run) => (
              <RunChip
                key={run.id}
                run={run}
                chosen={chosen}
                unusable={unusable.find((one) => one.id === run.id)?.why}
              />
            ))}
          </div>
        )}
      </div>
    </li>
  );
}

interface SetupMeaningProps {
  figures: SetupFigures | undefined;
  pending: boolean;
  isBaseline: boolean;
  baseline: Setup;
}

function SetupMeaning({ figures, pending, isBaseline, baseline }: SetupMeaningProps) {
  const unit = usePreferences((state) => state.powerUnit);
  if (!figures)
    return <div className={classes.meaning}>{pending ? 'making the figures…' : 'no run in figures yet'}</div>;
  if (isBaseline || !figures.gain) {
    const spread = Number.isNaN(figures.spreadKw) ? 'one run' : `spread ${formatPower(figures.spreadKw, unit)}`;
    return (
      <div className={classes.meaning}>
        <span className="number">
          peak {formatPower(figures.peakKw, unit)} {unit}
        </span>{' '}
        · {spread}
        {isBaseline && ' · baseline'}
      </div>
    );
  }
  const { gain, verdict } = figures;
  const half = Number.isNaN(gain.halfWidth) ? '' : ` ± ${formatPower(gain.halfWidth, unit)}`;
  return (
    <div className={classes.meaning}>
      <span className={`number ${verdict === 'gain' ? 'gain' : verdict === 'loss' ? 'loss' : ''}`}>
        {signed(formatPower(gain.difference, unit))}
        {half} {unit}
      </span>{' '}
      on {baseline.letter}
      {verdict === 'within repeatability' && ', within repeatability'}
    </div>
  );
}
