import { Link } from 'react-router';
import type { Job, Run } from '../../../../contract/job/records.ts';
import { axesOf, settingsOf } from '../../../../core/fuelling/layout.ts';
import { progressOf } from '../../../../core/fuelling/standing.ts';
import { progressWords, usedWords } from '../../../../core/wording/fuelling-words.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { useFuelling } from '../../../workers/figures.ts';
import classes from './run-result.module.css';

/** What a run at part load shows of the fuel table, and the way to it. */
export function FuellingResult({ job, run }: { job: Job; run: Run }) {
  const { fuelling } = job.car;
  const [found] = useFuelling([[run]], axesOf(fuelling, [run]), settingsOf(fuelling));
  if (!found) return <p className="soft">Making the table…</p>;
  const [refused] = found.refused;
  return (
    <>
      {found.table ? (
        <div data-testid="fuelling-result">
          <p className={classes.sentence}>{progressWords(progressOf(found.table.cells))}</p>
          <p className="soft">{usedWords(found.table)}</p>
        </div>
      ) : (
        <FindingList>
          <FindingLine severity="mind">{refused?.why ?? 'Nothing was driven at part load.'}</FindingLine>
        </FindingList>
      )}
      <Link className={classes.log} to={`../logs?show=fuelling&run=${run.label}`} relative="path">
        See the table, and what it proposes
      </Link>
    </>
  );
}
