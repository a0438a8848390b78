import type { Job } from '../../../../contract/job/records.ts';
import { standards } from '../../../../core/air/correction.ts';
import { powerUnits, torqueUnits } from '../../../../core/units/units.ts';
import type { Units } from '../../../../core/units/told-units.ts';
import { chooseUnits } from '../../../units/use-own-units.tsx';
import { formatPower, formatRpm, formatSpan } from '../../../../core/wording/figures.ts';
import { listed } from '../../../../core/units/spoken.ts';
import { AgainstChoice } from './against-choice.tsx';
import { BaselineChoice } from './baseline-choice.tsx';
import { BandChoice } from './band-choice.tsx';
import { Choice, Control } from './control.tsx';
import classes from './how-made.module.css';
import { Dock } from './dock.tsx';
import { ScaleChoice } from './scale-choice.tsx';
import { SmoothingChoice } from './smoothing-choice.tsx';
import { StandardChoice } from './standard-choice.tsx';
import type { ChangeView } from '../view/view.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';
import { meanOf } from '../../../../core/numerics/mean.ts';

interface HowMadeProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
  /** Only which setups are compared: of tests nothing is corrected or smoothed. */
  setupsAlone?: boolean;
}

/** How the figures were made, each part of it a control. */
export function HowMade({ job, figures, view, change, setupsAlone = false }: HowMadeProps) {
  return (
    <Dock>
      <div className={classes.how}>
        {!setupsAlone && <Processing job={job} figures={figures} view={view} change={change} />}
        <AgainstChoice job={job} view={view} change={change} />
        {!setupsAlone && (
          <span>
            baseline <BaselineChoice job={job} figures={figures} view={view} change={change} />
          </span>
        )}
      </div>
    </Dock>
  );
}

/** Correction, smoothing, scale, units and range. */
function Processing({ job, figures, view, change }: HowMadeProps) {
  // In the address too, so that a link shows the same figures.
  const choose = ({ mixture, ...units }: Partial<Units>) => {
    chooseUnits({ ...units, ...(mixture && { mixture }) });
    change({ ...units, ...(mixture && { mixture: mixture === 'AFR' ? 'afr' : 'lambda' }) });
  };
  const auto = view.smoothing === 'auto';
  const airless =
    figures.runs.length > 0 && figures.runs.every(({ curve }) => curve.checks.some(({ id }) => id === 'air-missing'));
  const span = auto ? figures.spanRpm : Number(view.smoothing);
  const spanText = span === 0 ? 'none' : `${auto ? 'auto, ' : ''}${formatSpan(span)}`;
  return (
    <>
      <span>
        {view.standard === 'none' ? '' : airless ? 'No air recorded, so not corrected to ' : 'Corrected to '}
        <Control text={standards[view.standard].name} label="Correction standard">
          <StandardChoice view={view} change={change} />
        </Control>{' '}
        {figures.factors && view.standard !== 'none' && !airless && (
          <span className="number">{factorText(figures.factors)}</span>
        )}
        {view.share < 1 && ` at ${Math.round(view.share * 100)} % share`}
      </span>
      <span>
        smoothing{' '}
        <Control text={spanText} label="Smoothing">
          <SmoothingChoice span={span} auto={auto} raw={view.raw} takenOff={takenOff(figures, view)} change={change} />
        </Control>
      </span>
      <span>
        <Control
          text={figures.estimate === undefined ? 'at the wheels' : `≈ at the crank, ${figures.estimate}`}
          label="Wheels or crank"
        >
          <ScaleChoice job={job} view={view} change={change} />
        </Control>
        {figures.noEstimate && `: no estimate for the crank. ${figures.noEstimate}`}
      </span>
      <span>
        <Control text={view.units.power} label="Unit of power">
          <Choice options={powerUnits} value={view.units.power} onChange={(power) => choose({ power })} />
        </Control>{' '}
        and{' '}
        <Control text={view.units.torque} label="Unit of torque">
          <Choice options={torqueUnits} value={view.units.torque} onChange={(torque) => choose({ torque })} />
        </Control>
      </span>
      {view.lanes.some((lane) => lane.startsWith('lambda')) && (
        <span>
          mixture as{' '}
          <Control text={view.units.mixture === 'AFR' ? 'air–fuel ratio' : 'λ'} label="Mixture as">
            <Choice
              options={['λ', 'air–fuel ratio']}
              value={view.units.mixture === 'AFR' ? 'air–fuel ratio' : 'λ'}
              onChange={(chosen) => choose({ mixture: chosen === 'λ' ? 'λ' : 'AFR' })}
            />
          </Control>
        </span>
      )}
      <span>
        over{' '}
        <Control text={bandText(figures, view)} label="Range that the sentence is about">
          <BandChoice job={job} figures={figures} view={view} change={change} />
        </Control>
      </span>
    </>
  );
}

/** How far the smoothed peaks of the runs compared lie below what the samples around them say. */
function takenOff({ runs }: JobFigures, view: CompareView): string | undefined {
  const takenOffKw = runs
    .filter((run) => run.counted && run.setupId === view.test.id)
    .map((run) => run.curve.takenOffPeakKw);
  if (takenOffKw.length === 0) return undefined;
  const mean = meanOf(takenOffKw);
  const text = formatPower(Math.abs(mean), view.units.power);
  return `At the peak of ${view.test.letter} a third of the span would read ${text} ${view.units.power} ${mean < 0 ? 'less' : 'more'}.`;
}

function bandText({ comparison }: JobFigures, { bands }: CompareView): string {
  const words = bands.map(({ fromRpm, toRpm, name }) => name ?? `${formatRpm(fromRpm)}–${formatRpm(toRpm)} rpm`);
  if (words.length > 0) return listed(words);
  return comparison ? 'the common range' : 'no range';
}

function factorText([least, most]: readonly [number, number]): string {
  const text = (factor: number) => factor.toFixed(3);
  return text(least) === text(most) ? `×${text(least)}` : `×${text(least)}–${text(most)}`;
}
