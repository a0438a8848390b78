import { Link, Navigate } from 'react-router';
import { useLive } from '../../state/live.ts';
import { useJob } from '../../state/queries.ts';
import type { BayState } from '../../../contract/bays/live.ts';
import classes from './which-car.module.css';

/** The driver's view without a bay in its address: the only bay's, or the choice of one. */
export function WhichCar() {
  const bays = useLive((state) => state.bays);
  const [only, ...others] = bays;
  if (!only) return <main aria-busy />;
  if (others.length === 0) return <Navigate to={`/bays/${only.bay}/drive`} replace />;
  return (
    <main className={classes.page}>
      <h1>Which car do you drive?</h1>
      <ul>
        {bays.map((bay) => (
          <li key={bay.bay}>
            <Link to={`/bays/${bay.bay}/drive`}>
              <b>{bay.name}</b>
              <OnDyno bay={bay} />
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}

function OnDyno({ bay: { mounted } }: { bay: BayState }) {
  const { data: job } = useJob(mounted?.jobId ?? 0, mounted !== null);
  return <span>{job?.vehicle ?? (mounted ? 'a car' : 'no car on the dyno')}</span>;
}
