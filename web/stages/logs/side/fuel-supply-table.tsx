import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { Link } from 'react-router';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { engineOfRun } from '../../../../core/figures/runs/engine-of-run.ts';
import type { RunFigures } from '../../../../core/figures/runs/figured-run.ts';
import type { LogView } from '../../../../core/log/view/log-view.ts';
import { fuelSupply, type FuelShare, type FuelSupply } from '../../../../core/log/view/fuel-supply.ts';
import { recordOfJob } from '../../../../core/figures/request/record-of-job.ts';
import { figureIn } from '../../../../core/units/told-units.ts';
import { formatRpm, formatWhole } from '../../../../core/wording/figures.ts';
import classes from './log-side-pane.module.css';

interface FuelSupplyTableProps {
  job: Job;
  run: Run;
  log: LogView;
  curve: RunFigures['curve'] | undefined;
}

/** A step of boost where the setup was not made by one, kPa. */
const usualStepKpa = 10;

/** Fuel that the pull needed against what injectors and pump give, and what the next step of boost would need. */
export function FuelSupplyTable({ job, run, log, curve }: FuelSupplyTableProps) {
  const own = useOwnUnits();
  const stepKpa = log.boost && nextStepKpa(job, run);
  const found = log.unjudged
    ? undefined
    : fuelSupply({
        channels: log.channels,
        engine: engineOfRun(recordOfJob(job), run),
        regulation: log.fuelRegulation,
        hardware: job.car,
        power: curve && { engineSpeedRpm: curve.engineSpeedRpm, powerKw: curve.uncorrectedPowerKw },
        stepKpa,
      });
  if (!found) return null;
  const { neededLh, atRpm, injectors, pump, next, railKpa, expectedKpa } = found;
  const ends = next && firstToEnd(next);
  const flow = (litresPerHour: number) => figureIn(own.told('L/h').of(litresPerHour), own.unit('L/h'), 1);
  const sag = log.events.find(({ id }) => id === 'fuel-pressure-sag');
  return (
    <table className={classes.table} aria-label="Fuel supply">
      <thead>
        <tr>
          <th scope="col">Fuel needed at {formatRpm(atRpm)} rpm</th>
          <th scope="col">{own.unit('L/h')}</th>
          <th scope="col">share</th>
        </tr>
      </thead>
      <tbody>
        {!injectors && !pump && (
          <tr>
            <th scope="row">estimate</th>
            <td>{flow(neededLh)}</td>
            <td />
          </tr>
        )}
        {injectors && <Row name="injectors" needed={neededLh} of={injectors} sure={found.measured} flow={flow} />}
        {pump && <Row name="pump" needed={neededLh} of={pump} sure={found.measured} flow={flow} />}
        {next && (
          <tr>
            <th scope="row">
              {own.whole(next.stepKpa, 'kPa')} more boost{ends && `: ${ends.name}`}
            </th>
            <td>{flow(next.neededLh)}</td>
            <td className={found.measured && ends && ends.share > 1 ? classes.over : undefined}>
              {ends && percent(ends.share)}
            </td>
          </tr>
        )}
        {railKpa !== undefined && (
          <tr>
            <th scope="row">fuel pressure, {own.unit('kPa')}</th>
            <td colSpan={2}>
              {own.figure(railKpa, 'kPa')}
              {expectedKpa !== undefined && ` of ${own.figure(expectedKpa, 'kPa')} expected`}
            </td>
          </tr>
        )}
        {sag && (
          <tr>
            <th scope="row">sag of {own.whole(sag.figure, 'kPa')} begins</th>
            <td colSpan={2} className={classes.over}>
              {formatRpm(sag.fromRpm)} rpm{run.fuel?.litres ? `, tank ${own.whole(run.fuel.litres, 'L')}` : ''}
            </td>
          </tr>
        )}
      </tbody>
      <caption>
        Estimate: {own.write(found.rests)}.{injectors && ` Injectors ${own.write(injectors.rests)}.`}
        {pump && ` Pump ${own.write(pump.rests)}.`}
        {(!injectors || !pump) && (
          <>
            {' '}
            <Link to={`/vehicles/${job.vehicleId}`}>
              {injectors ? 'Write down the pump' : pump ? 'Write down the injectors' : 'Write down injectors and pump'}
            </Link>{' '}
            to see where they end.
          </>
        )}
      </caption>
    </table>
  );
}

/** Another step like the one that the run's setup was made by. */
function nextStepKpa({ setups }: Job, { setupId }: Run): number {
  const items = setups.find(({ id }) => id === setupId)?.items ?? [];
  const by = items.flatMap((item) => (item.kind === 'boost' && item.by !== undefined && item.by > 0 ? [item.by] : []));
  return by[0] ?? usualStepKpa;
}

interface RowProps {
  name: string;
  needed: number;
  of: FuelShare;
  sure: boolean;
  /** A flow of L/h as it is written. */
  flow: (litresPerHour: number) => string;
}

function Row({ name, needed, of, sure, flow }: RowProps) {
  return (
    <tr>
      <th scope="row">
        {name}
        {of.endsRpm !== undefined && `, at their end from ${formatRpm(of.endsRpm)} rpm`}
      </th>
      <td>
        {flow(needed)} of {flow(of.givesLh)}
      </td>
      <td className={sure && of.share > 1 ? classes.over : undefined}>{percent(of.share)}</td>
    </tr>
  );
}

const percent = (share: number) => `${formatWhole(100 * share)} %`;

/** Of injectors and pump, what ends first. */
function firstToEnd(next: NonNullable<FuelSupply['next']>): { name: string; share: number } | undefined {
  const all = [
    { name: 'injectors', share: next.injectors ?? 0 },
    { name: 'pump', share: next.pump ?? 0 },
  ].sort((a, b) => b.share - a.share);
  return all[0] && all[0].share > 0 ? all[0] : undefined;
}
