import { Link } from 'react-router';
import type { Job } from '../../../../contract/job/records.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import { onTheRoad } from '../../../../core/report/on-the-road.ts';
import { reportedJob } from '../../../../core/report/reported-job.ts';
import { reportReader, writtenTable } from '../../../../core/report/written-report.ts';
import { WrittenTable } from '../../../ui/written-table.tsx';
import type { CompareView } from '../view/view-address.ts';
import classes from './steps-picture.module.css';

interface RoadTableProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
}

/** What the difference means on the road: times between two speeds in each gear, and where to shift. */
export function RoadTable({ job, figures, view }: RoadTableProps) {
  const { test, against, standard, share } = view;
  const source = { job: reportedJob(job), figures, view: { standard, share, auto: view.smoothing === 'auto' } };
  const table = onTheRoad(source, against.id, test.id, { before: against.letter, after: test.letter });
  if (!table)
    return (
      <div className={classes.none}>
        <h2>Nothing to tell of the road yet</h2>
        <p>
          {figures.estimate === undefined ? (
            <>
              It takes tyres with their size, the final drive and the gears of the car, and runs of both setups that
              cover some 30 km/h of a gear. <Link to={`/vehicles/${job.vehicleId}`}>Write them on the car’s page</Link>.
            </>
          ) : (
            'Times are made of power as it was measured: show the figures at the wheels.'
          )}
        </p>
      </div>
    );
  return (
    <section className={classes.picture} aria-label="Road" tabIndex={0}>
      <header>
        <h2>
          {test.letter} against {against.letter} on the road
        </h2>
        <p>Time from one speed to the other in each gear; ± is a 95 % interval of the difference.</p>
      </header>
      <WrittenTable table={writtenTable(table, reportReader(job, view.units, 'en'))} />
    </section>
  );
}
