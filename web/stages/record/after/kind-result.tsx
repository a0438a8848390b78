import { Link } from 'react-router';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { figureSentence } from '../../../../core/wording/kind-words.ts';
import { fuelOfRun } from '../../../../core/figures/runs/kinds-of-job.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { useKindOutcome } from '../../../workers/figures.ts';
import classes from './run-result.module.css';

/** The figures of an idle, a start, a step of the throttle or a cruise, and what stands out in it. */
export function KindResult({ job, run }: { job: Job; run: Run }) {
  const { write } = useOwnUnits();
  const outcome = useKindOutcome(run, fuelOfRun(job.car, run));
  if (!outcome) return <p className="soft">Making the figures…</p>;
  const { figures, why } = outcome;
  return (
    <>
      {why !== undefined && (
        <FindingList>
          <FindingLine severity="mind">{why}</FindingLine>
        </FindingList>
      )}
      {figures && (
        <>
          <table className={classes.table} data-testid="kind-figures">
            <tbody>
              {figures.figures.map((figure) => (
                <tr key={figure.id}>
                  <th scope="row">{figure.label}</th>
                  <td>{write(figureSentence(figure)).trim()}</td>
                </tr>
              ))}
            </tbody>
            <caption>± is 95 %, within this run.</caption>
          </table>
          <FindingList>
            {figures.found.map(({ id, severity, message }) => (
              <FindingLine key={id} severity={severity}>
                {write(message)}
              </FindingLine>
            ))}
          </FindingList>
        </>
      )}
      <Link className={classes.log} to="../compare?show=tests" relative="path">
        Before and after, in Compare
      </Link>
    </>
  );
}
