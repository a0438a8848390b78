import { phrasesText } from '../../../../core/wording/gain-sentence.ts';
import { useOwnUnits } from '../../../units/use-own-units.tsx';
import type { Job } from '../../../../contract/job/records.ts';
import { FindingLine, FindingList, SeverityMark } from '../../../ui/severity.tsx';
import classes from './findings.module.css';
import { saidOnce } from '../../../../core/judgement/run-findings.ts';
import { testsSentence } from '../../../../core/wording/kind-words.ts';
import { capital } from '../../../../core/units/spoken.ts';
import { deviatingWords } from '../../../../core/wording/judgement-words.ts';
import { frozenDiffers } from '../how-made/baseline-choice.tsx';
import { Alone } from './alone.tsx';
import { DecisionHere } from './decision-here.tsx';
import { GainTable } from './gain-table.tsx';
import { Headroom } from './headroom.tsx';
import { OtherChanges } from './other-changes.tsx';
import { Remedy } from './remedy.tsx';
import { WhatCanBeSeen } from './what-can-be-seen.tsx';
import { HowMade } from '../how-made/how-made.tsx';
import type { ChangeView } from '../view/view.ts';
import type { RunFigures } from '../../../../core/figures/runs/figured-run.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface FindingsProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
  change: ChangeView;
}

/** What the comparison says: the sentence, how it was made, the table, and what stands against it. */
export function Findings({ job, figures, view, change }: FindingsProps) {
  const { comparison } = figures;
  const { write } = useOwnUnits();
  if (view.show === 'tests') return <TestFindings job={job} figures={figures} view={view} change={change} />;
  const others = comparison?.unlike ?? [];
  const frozen = frozenDiffers(job, view);
  return (
    <div className={classes.pane}>
      <div className={classes.findings}>
        <p
          className={classes.sentence}
          data-testid="sentence"
          data-long={(comparison ? phrasesText(comparison.sentence, view.units).length : 0) > longSentence || undefined}
        >
          {comparison
            ? comparison.sentence.map((phrase, index) => (
                <span key={index} className={phrase.tone}>
                  {unbroken(write(phrase.text))}
                </span>
              ))
            : (figures.noComparison ?? 'Making the figures…')}
        </p>
        <HowMade job={job} figures={figures} view={view} change={change} />
        {!comparison && <Alone figures={figures} view={view} />}
        {comparison && <GainTable comparison={comparison} view={view} change={change} estimate={figures.estimate} />}
        {comparison && <WhatCanBeSeen job={job} figures={figures} comparison={comparison} view={view} />}
        {comparison && (
          <section>
            <h2 className="heading">Like for like</h2>
            <FindingList>
              {others.map((finding) => (
                <FindingLine key={finding.id} severity={finding.severity}>
                  {write(finding.message)}{' '}
                  <span className={classes.matters}>
                    {capital(write(finding.matters))}. {finding.remedy}
                  </span>
                  <Remedy job={job} finding={finding} figures={figures} view={view} change={change} />
                </FindingLine>
              ))}
              {frozen && <FindingLine severity="mind">{frozen}</FindingLine>}
              {others.length === 0 && !frozen && (
                <FindingLine severity="note">
                  No difference is recorded: one dyno, gear, range and session, air with every run.
                </FindingLine>
              )}
            </FindingList>
          </section>
        )}
        <Marks figures={figures} view={view} />
        {comparison && <OtherChanges job={job} comparison={comparison} view={view} change={change} />}
        <Headroom job={job} figures={figures} view={view} />
      </div>
      {comparison && (
        <footer className={classes.foot}>
          <MarksInSight figures={figures} view={view} />
          <DecisionHere
            job={job}
            figures={figures}
            view={view}
            onAdded={(setup) => change({ setup, against: undefined }, false)}
          />
        </footer>
      )}
    </div>
  );
}

/** Of tests that are no power runs: what they say in one sentence, the setups, and the decision. */
function TestFindings({ job, figures, view, change }: FindingsProps) {
  const { write } = useOwnUnits();
  const judged = (figures.tests?.shown ?? []).flatMap(({ judgement }) => judgement ?? []);
  const said = figures.tests
    ? (testsSentence(judged) ?? 'No kind of test was made in both setups.')
    : 'Making the figures…';
  return (
    <div className={classes.pane}>
      <div className={classes.findings}>
        <p
          className={classes.sentence}
          data-testid="sentence"
          data-long={write(said).length > longSentence || undefined}
        >
          {unbroken(write(said))}
        </p>
        <HowMade job={job} figures={figures} view={view} change={change} setupsAlone />
      </div>
      {judged.length > 0 && (
        <footer className={classes.foot}>
          <DecisionHere
            job={job}
            figures={figures}
            view={view}
            onAdded={(setup) => change({ setup, against: undefined }, false)}
          />
        </footer>
      )}
    </div>
  );
}

/** A sentence of more letters is set smaller, so that what it rests on stays in sight. */
const longSentence = 170;

const marksId = 'limits-and-findings';

/** What was found on the runs compared, each once, the gravest first. */
function marksOf({ comparison, runs }: JobFigures, view: CompareView) {
  // Of a setup that stands by itself all counted runs are looked at.
  const isCompared = comparison
    ? ({ id }: RunFigures) => Object.values(comparison.compared).flat().includes(id)
    : ({ counted, setupId }: RunFigures) => counted && setupId === view.test.id;
  return saidOnce(runs.filter(isCompared).map(({ label, found = [] }) => ({ label, found })));
}

/** The gravest of what was found and how many more there are, wherever the pane is scrolled to. */
function MarksInSight({ figures, view }: { figures: JobFigures; view: CompareView }) {
  const { write } = useOwnUnits();
  const grave = marksOf(figures, view).filter(({ severity }) => severity !== 'note');
  const [worst, ...others] = grave;
  if (!worst) return null;
  return (
    <button
      className={classes.inSight}
      title="Show all limits and findings"
      onClick={() => document.getElementById(marksId)?.scrollIntoView({ block: 'start' })}
    >
      <SeverityMark severity={worst.severity} />
      <span>
        {worst.labels.join(', ')}: {write(worst.message)}
      </span>
      {others.length > 0 && <b>+{others.length}</b>}
    </button>
  );
}

/** What was found on the runs compared, in motion, air and log, and runs that no curve can be made of. */
function Marks({ figures, view }: { figures: JobFigures; view: CompareView }) {
  const { comparison } = figures;
  const { write } = useOwnUnits();
  const marks = marksOf(figures, view);
  const deviating = comparison?.deviating ?? [];
  const unusable = new Map<string, string[]>();
  for (const { why, label } of figures.unusable) unusable.set(why, [...(unusable.get(why) ?? []), label]);
  if (marks.length + deviating.length + figures.unusable.length === 0) return null;
  return (
    <section id={marksId}>
      <h2 className="heading">Limits and findings</h2>
      <FindingList>
        {marks.map(({ message, severity, labels }) => (
          <FindingLine key={write(message)} severity={severity}>
            {labels.join(', ')}: {write(message)}
          </FindingLine>
        ))}
        {deviating.map((repeat) => (
          <FindingLine key={repeat.id} severity="mind">
            {write(deviatingWords(repeat))}
          </FindingLine>
        ))}
        {[...unusable].map(([why, labels]) => (
          <FindingLine key={why} severity="mind">
            {labels.join(', ')} {labels.length > 1 ? 'are' : 'is'} in no figure: {why}
          </FindingLine>
        ))}
      </FindingList>
    </section>
  );
}

/** A figure's ± and unit stay with it at a line's end. */
function unbroken(text: string): React.ReactNode[] {
  return text.split(/([+−]?[\d,.]+ ± [<\d.]+(?: (?:kW|hp|PS))?)/).map((part, index) =>
    index % 2 === 1 ? (
      <span key={index} className={classes.whole}>
        {part}
      </span>
    ) : (
      part
    ),
  );
}
