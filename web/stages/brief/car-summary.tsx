import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Link } from 'react-router';
import type { Job } from '../../../contract/job/records.ts';
import classes from '../../ui/file-form.module.css';
import own from './brief-stage.module.css';

const ignitions = { spark: 'spark ignition', compression: 'diesel', electric: 'electric' } as const;
const inductions = {
  none: 'naturally aspirated',
  turbo: 'turbo',
  supercharger: 'supercharger',
  both: 'turbo and supercharger',
} as const;

/** What is written of the car, and the way to it. */
export function CarSummary({ job }: { job: Job }) {
  const { car } = job;
  const units = useOwnUnits();
  const facts = [
    car.engine,
    car.ignition && ignitions[car.ignition],
    car.induction && inductions[car.induction],
    car.gearbox,
    car.drivenAxle && `${car.drivenAxle} driven`,
    car.tyres,
    car.factoryKw && `factory rating ${units.whole(car.factoryKw, 'kW')}`,
  ].filter(Boolean);
  return (
    <p className={classes.quiet}>
      <Link to={`/vehicles/${car.id}`} className={own.car}>
        {car.name}
      </Link>
      {car.plate && <span className="number"> {car.plate}</span>}
      {car.ownerName && `, ${car.ownerName}`}
      {' · '}
      {facts.length > 0
        ? facts.join(' · ')
        : 'Nothing is written of its engine yet. Ignition and induction decide which limits and checks suit it.'}
    </p>
  );
}
