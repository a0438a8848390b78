import { Switch } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Job } from '../../../../contract/job/records.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { JudgedKind } from '../../../../core/figures/runs/kinds-of-job.ts';
import { isAskedOfHolds } from '../../../../core/run-kinds/hold-figures.ts';
import { differenceSentence, figureSentence, toneOfFigure, verdictWord } from '../../../../core/wording/kind-words.ts';
import { CostOfDriving } from '../../../costs/cost-of-driving.tsx';
import { runKindWords } from '../../../job/run-kind-words.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import type { CompareView } from '../view/view-address.ts';
import classes from './other-runs.module.css';
import steps from './steps-picture.module.css';

/** Runs that are no power runs, before and after: each kind by its own figures, never mixed into those of power. */
export function OtherRuns({
  job,
  figures: { tests },
  view: { test, against },
}: {
  job: Job;
  figures: JobFigures;
  view: CompareView;
}) {
  if (!tests) return <div aria-busy />;
  // What can be judged stands above what only one setup has.
  const kinds = [...tests.shown].sort(
    (one, other) => Number(Boolean(other.judgement)) - Number(Boolean(one.judgement)),
  );
  if (kinds.length === 0)
    return (
      <div className={steps.none}>
        <h2>No idle, cold start, response, cruise or row of holds in these setups</h2>
        <p>
          Choose such a kind of run on{' '}
          <Link to="../record" relative="path">
            Record
          </Link>
          , once before a change and once after it. Repeats on both sides are what a claim rests on.
        </p>
      </div>
    );
  return (
    <section className={steps.picture} aria-label="Tests" tabIndex={0}>
      <header>
        <h2>
          {test.letter} against {against.letter}, tests that are no power runs
        </h2>
        <p>
          Each kind by itself. ± is 95 %; coloured is shown, with the chance of any false claim of a kind below 5 %. A
          cruise’s fuel drifts by some 0.6 % from one warm-up to the next: assumed, and within its ±.
        </p>
      </header>
      {kinds.map((kind) => (
        <Kind
          key={kind.kind}
          of={kind}
          before={against.letter}
          after={test.letter}
          beforeId={against.id}
          afterId={test.id}
          job={job}
        />
      ))}
    </section>
  );
}

function Kind({
  of: { kind, judgement, runs },
  before,
  after,
  beforeId,
  afterId,
  job,
}: {
  of: JudgedKind;
  before: string;
  after: string;
  beforeId: number;
  afterId: number;
  job: Job;
}) {
  const { write } = useOwnUnits();
  const [all, setAll] = useState(false);
  const found = runs.flatMap(({ label, figures }) => (figures?.found ?? []).map((finding) => ({ ...finding, label })));
  const rows = judgement?.figures.filter(({ id }) => kind !== 'step' || all || isAskedOfHolds(id)) ?? [];
  const fuel = judgement?.figures.find(({ id }) => id === 'fuel-per-distance');
  const missing = runs.some(({ setupId }) => setupId === beforeId) ? after : before;
  return (
    <section className={classes.kind} aria-label={runKindWords[kind].name}>
      <h3>{runKindWords[kind].name}</h3>
      <FindingList>
        {judgement?.caveats.map(({ severity, text }) => (
          <FindingLine key={text} severity={severity}>
            {text}
          </FindingLine>
        ))}
        {runs.flatMap(({ id, label, why }) =>
          why === undefined
            ? []
            : [
                <FindingLine key={id} severity="mind">
                  {label}: {why}
                </FindingLine>,
              ],
        )}
      </FindingList>
      {judgement ? (
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">{kind === 'step' ? 'Hold' : 'Figure'}</th>
              <th scope="col">
                {before} <small>{judgement.before.join(', ')}</small>
              </th>
              <th scope="col">
                {after} <small>{judgement.after.join(', ')}</small>
              </th>
              <th scope="col">Difference</th>
              <th scope="col">
                <span className="seen-by-readers">Shown or not</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((figure) => (
              <tr key={figure.id}>
                <th scope="row">{figure.label}</th>
                <td>{write(figureSentence({ ...figure, value: figure.before, halfWidth: NaN })).trim()}</td>
                <td>{write(figureSentence({ ...figure, value: figure.after, halfWidth: NaN })).trim()}</td>
                <td className={toneOfFigure(figure)}>{write(differenceSentence(figure)).trim()}</td>
                <td className={toneOfFigure(figure) ?? 'soft'}>{verdictWord(figure)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <>
          <p className="soft">Only one of the two setups has such a run: make one in {missing} too.</p>
          <table className={classes.table}>
            <tbody>
              {runs.flatMap(({ label, figures }) =>
                (figures?.figures ?? [])
                  .filter(({ id }) => kind !== 'step' || all || isAskedOfHolds(id))
                  .map((figure) => (
                    <tr key={`${label} ${figure.id}`}>
                      <th scope="row">
                        {label}, {figure.label}
                      </th>
                      <td>{write(figureSentence(figure)).trim()}</td>
                    </tr>
                  )),
              )}
            </tbody>
          </table>
        </>
      )}
      {fuel && <CostOfDriving job={job} fuel={fuel} setupId={afterId} />}
      {judgement?.next && <p className={classes.next}>{judgement.next}</p>}
      {kind === 'step' && (
        <Switch label="Every logged channel" checked={all} onChange={(event) => setAll(event.currentTarget.checked)} />
      )}
      <FindingList>
        {found.map(({ id, severity, message, label }) => (
          <FindingLine key={`${label} ${id}`} severity={severity}>
            {label}: {write(message)}
          </FindingLine>
        ))}
      </FindingList>
    </section>
  );
}
