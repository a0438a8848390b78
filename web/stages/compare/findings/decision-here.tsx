import { useUnits } from '../../../units/use-own-units.tsx';
import type { Job } from '../../../../contract/job/records.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import { decidedOn } from '../../../setups/decided-on.ts';
import { Decision, GoBack } from '../../../setups/setup-details.tsx';
import type { CompareView } from '../view/view-address.ts';

/** The decision where it is made: under what it rests on. */
export function DecisionHere({
  job,
  figures,
  view,
  onAdded,
}: {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  onAdded: (letter: string) => void;
}) {
  const units = useUnits();
  const setup = view.test;
  const parent = job.setups.find((candidate) => candidate.id === setup.parentId);
  if (!parent) return null;
  return (
    <section data-testid="decision">
      <Decision
        key={setup.id}
        setup={setup}
        decidedOn={decidedOn(job, figures, setup, units)}
        heading={`Decide on ${setup.letter}`}
      />
      <GoBack
        job={job}
        setup={setup}
        parent={parent}
        onAdded={(added) => onAdded(added.letter)}
        close={() => undefined}
      />
    </section>
  );
}
