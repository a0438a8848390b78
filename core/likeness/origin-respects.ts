import { all, known, type LikeForLikeInput, type Unlikeness } from './run-conditions.ts';

/** Another vehicle's runs: what differs is the vehicle, whatever was changed on it. */
export function vehicles(input: LikeForLikeInput): Unlikeness | undefined {
  const names = [...new Set(known(all(input).map((run) => run.vehicle)))];
  if (names.length < 2) return undefined;
  return {
    id: 'other-vehicle',
    severity: 'stop',
    message: `The runs are of different vehicles: ${names.join(' and ')}.`,
    matters: 'two cars of one kind differ by several percent, and this is no change to either',
    remedy: 'Compare with this vehicle’s own runs.',
  };
}

/** Runs of another job: told with where they come from. */
export function origins(input: LikeForLikeInput): Unlikeness | undefined {
  const places = [...new Set(known(all(input).map((run) => run.origin)))];
  if (places.length === 0) return undefined;
  return {
    id: 'other-job',
    severity: 'note',
    message: `What it is compared with comes from elsewhere: ${places.join(', ')}.`,
    matters: 'another visit is another mounting and another day',
  };
}
