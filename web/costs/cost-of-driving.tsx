import { NumberInput } from '@mantine/core';
import type { Job } from '../../contract/job/records.ts';
import { sums } from '../../core/charges/charges.ts';
import { drivingCost, drivingCostWords, fuelPriceOf } from '../../core/charges/driving-cost.ts';
import type { JudgedFigure } from '../../core/judgement/kind-judgement.ts';
import { usePreferences } from '../state/preferences.ts';
import classes from './job-costs.module.css';
import { usePrices } from '../state/queries.ts';

/** What two cruises' fuel costs, at a price that is the list's until somebody types another; and when a saving has paid for the change. */
export function CostOfDriving({ job, fuel, setupId }: { job: Job; fuel: JudgedFigure; setupId: number }) {
  const { data: prices } = usePrices();
  const listed = prices && fuelPriceOf(prices, job.car.ignition);
  const typed = usePreferences((state) => state.fuelPrice);
  const price = typed ?? listed?.amount;
  const currency = listed?.currency ?? prices?.[0]?.currency ?? '€';
  const ofChange = job.charges.filter((charge) => charge.setupId === setupId);
  const spent = sums(ofChange).find((sum) => sum.currency === currency)?.amount;
  return (
    <div className={classes.driving}>
      <NumberInput
        label={`Fuel, ${currency} per litre`}
        description={typed === null && listed ? `${listed.name}, of the price list` : undefined}
        placeholder={listed ? '' : 'e.g. 1.72'}
        min={0}
        decimalScale={3}
        hideControls
        value={price ?? ''}
        onChange={(value) =>
          usePreferences.setState({ fuelPrice: typeof value === 'number' && value > 0 ? value : null })
        }
      />
      <p>
        {price
          ? drivingCostWords(drivingCost(fuel, price, spent), currency)
          : 'With its price, the fuel for distance is told in money.'}
      </p>
    </div>
  );
}
