import { useOwnUnits } from '../units/use-own-units.tsx';
import { useMemo } from 'react';
import { brokenWords } from '../../core/limits/broken-words.ts';
import type { Job, Setup } from '../../contract/job/records.ts';
import { formatRpm } from '../../core/wording/figures.ts';
import { branchDepths } from '../../core/setup/tree.ts';
import { ImportButton } from '../imports/import-button.tsx';
import { NewSetup } from './new-setup.tsx';
import { decidedOn } from './decided-on.ts';
import { SetupCard } from './setup-card.tsx';
import classes from './setups-column.module.css';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import { baselineSetup, newestSetup } from '../../core/job/baseline.ts';

export interface SetupsColumnProps {
  job: Job;
  figures: JobFigures | undefined;
  /** Figures of some setups are still being made. */
  pending?: boolean;
  baselineId: number;
  /** The setup chosen: compared, or on the dyno. */
  chosenId: number | undefined;
  /** In words, what choosing a setup does here. */
  choosing: string;
  onChoose: (setup: Setup) => void;
  onAdded: (setup: Setup) => void;
  /** Whether N begins a new setup here. */
  hotkey?: boolean;
  /** Targets large enough for a gloved finger. */
  gloved?: boolean;
}

/** The job's setups from first to newest, with their runs and what each gave. */
export function SetupsColumn({
  job,
  figures,
  pending = figures === undefined,
  baselineId,
  chosenId,
  choosing,
  onChoose,
  onAdded,
  hotkey = true,
  gloved = false,
}: SetupsColumnProps) {
  const parent = job.setups.find((setup) => setup.id === chosenId) ?? newestSetup(job.setups);
  const baseline = baselineSetup(job.setups, job.baseline, baselineId);
  const depths = branchDepths(job.setups);
  const over = useMemo(() => judgedBand(job, figures), [job, figures]);
  const own = useOwnUnits();
  const { write } = own;
  const broken = useMemo(
    () => new Map((figures?.runs ?? []).map((run) => [run.id, run.broken.map((limit) => write(brokenWords(limit)))])),
    [figures, write],
  );
  return (
    <aside className={classes.column} aria-label="Setups" data-gloved={gloved || undefined}>
      <h2 className="heading">
        Setups, in order
        {figures?.estimate !== undefined && <small> · ≈ at the crank, {figures.estimate}</small>}
        {over && <small title="Gains and verdicts of the setups are means over this band"> · gains over {over}</small>}
      </h2>
      <ol className={classes.list}>
        {job.setups.map((setup) => (
          <SetupCard
            key={setup.id}
            job={job}
            setup={setup}
            depth={depths.get(setup.id) ?? 0}
            onAdded={onAdded}
            parent={job.setups.find((other) => other.id === setup.parentId)}
            previous={job.setups[job.setups.indexOf(setup) - 1]}
            runs={job.runs.filter((run) => run.setupId === setup.id)}
            figures={figures?.setups.find((candidate) => candidate.setupId === setup.id)}
            pending={pending}
            estimated={figures?.estimate !== undefined}
            unusable={figures?.unusable ?? []}
            broken={broken}
            among={figures?.setups.length ?? 0}
            decidedOn={decidedOn(job, figures, setup, own)}
            baseline={baseline}
            chosen={setup.id === chosenId}
            choosing={choosing}
            onChoose={() => onChoose(setup)}
          />
        ))}
      </ol>
      <div className={classes.more}>
        <NewSetup job={job} parent={parent} onAdded={onAdded} hotkey={hotkey} />
        <ImportButton job={job} setup={parent} />
      </div>
    </aside>
  );
}

/** The band that the cards' gains are of, where it is not all that the runs share. */
function judgedBand(job: Job, figures: JobFigures | undefined): string | undefined {
  const pairs = figures?.setups.flatMap(({ onBaseline }) => onBaseline ?? []) ?? [];
  const [band] = job.bands.filter(({ fromRpm, toRpm }) =>
    pairs.some((pair) => fromRpm === pair.fromRpm && toRpm === pair.toRpm),
  );
  return band && `${band.name}, ${formatRpm(band.fromRpm)}–${formatRpm(band.toRpm)}`;
}
