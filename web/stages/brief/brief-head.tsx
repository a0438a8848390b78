import type { Job } from '../../../contract/job/records.ts';
import { lastOnDyno } from '../../../core/job/last-on-dyno.ts';
import { newestSetup } from '../../../core/job/baseline.ts';
import type { JobFigures } from '../../../core/figures/job-figures.ts';
import { gainOnParent, type SetupFigures } from '../../../core/figures/pairs/setup-figures.ts';
import { toldFigures, type Plausible } from '../../../core/judgement/told-figures.ts';
import {
  difference,
  quantity,
  quantityRange,
  say,
  withHalfWidth,
  type Sentence,
} from '../../../core/sentence/sentence.ts';
import { scorePrediction } from '../../../core/setup/prediction.ts';
import { predictionWords } from '../../../core/wording/decision-record.ts';
import {
  askedWords,
  madeWords,
  standardWords,
  standingWords,
  wantedThere,
  withReading,
} from '../../../core/wording/target-words.ts';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import classes from './brief-head.module.css';

interface Told {
  job: Job;
  /** Absent while they are made, and where there is no run. */
  figures: JobFigures | undefined;
}

/** What the job is about, in figures that move with its runs: target, claim, expectation, and what stands now. */
export function BriefHead(told: Told) {
  return (
    <div className={classes.strip}>
      <Target {...told} />
      <Claim {...told} />
      <Expectation {...told} />
      <Stands {...told} />
    </div>
  );
}

function Item({
  name,
  main,
  tone,
  lines = [],
}: {
  name: Sentence;
  main: Sentence;
  tone?: 'gain' | 'mind' | undefined;
  lines?: readonly (Sentence | false | undefined)[];
}) {
  const { write } = useOwnUnits();
  const said = lines.flatMap((line) => (line ? [write(line)] : []));
  return (
    <section className={classes.item} data-tone={tone}>
      <h2 className={classes.name}>{write(name)}</h2>
      <p className={classes.main}>{write(main)}</p>
      {said.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </section>
  );
}

/** The setup that has runs and was made last. */
function latestOf({ job, figures }: Told): { letter: string; of: SetupFigures } | undefined {
  const made = job.setups.flatMap(({ id, letter }) => {
    const of = figures?.setups.find(({ setupId }) => setupId === id);
    return of ? [{ letter, of }] : [];
  });
  return made.at(-1);
}

const letterOf = (job: Job, setupId: number | null | undefined) => job.setups.find(({ id }) => id === setupId)?.letter;

/** The first target with what the latest setup makes of it; the others are told in their list. */
function Target({ job, figures }: Told) {
  const [first, ...more] = job.targets;
  if (!first)
    return (
      <Item
        name="Target"
        main={job.target || 'none written'}
        lines={[job.target !== '' && 'in words: as a figure it is followed']}
      />
    );
  const found = figures?.targets?.find(({ id }) => id === first.id);
  const latest = latestOf({ job, figures });
  const now = found?.setups.find(({ setupId }) => setupId === latest?.of.setupId);
  const reached = now?.standing === 'reached';
  const best = found?.setups.find(({ standing }) => standing === 'reached');
  return (
    <Item
      name={say`Target: ${askedWords(first)}`}
      main={say`at least ${wantedThere(first)}`}
      tone={reached ? 'gain' : undefined}
      lines={[
        found && now && latest
          ? say`${latest.letter} ${madeWords(first, now)}: ${withReading(standingWords(first, found, now), first, found)}`
          : job.runs.length === 0 && 'not run yet',
        standardWords(first),
        !reached && best && `reached by ${letterOf(job, best.setupId)}`,
        more.length > 0 && `and ${more.length} more, below`,
      ]}
    />
  );
}

const verdicts: Record<Plausible, string> = {
  plausible: 'fits what arrived',
  less: 'what arrived is less: find the fault first',
  more: 'what arrived is more: a changed car, or look at dyno and correction',
};

/** What is claimed, else the factory's rating, and what that would read here: for orientation, never a baseline. */
function Claim({ job, figures }: Told) {
  const kind = lastOnDyno(job.runs)?.dyno.kind ?? job.dynoKind;
  const arrived = figures?.setups.find(({ setupId }) => setupId === job.setups[0]?.id);
  const machine = kind && kind !== 'road' ? kind : undefined;
  const told = toldFigures(
    job,
    machine ?? 'inertia-roller',
    machine && arrived && { kw: arrived.peakKw, halfWidthKw: arrived.halfWidthKw },
  );
  const claim = told.find(({ whose }) => whose === 'claim') ?? told[0];
  if (!claim) return <Item name="Claimed" main="nothing" lines={['and no factory rating']} />;
  const { whose, kw, scale, here, verdict, source } = claim;
  // As the owner says it.
  const figure = whose === 'claim' ? `${job.claimedValue} ${job.claimedUnit}` : say`${quantity(kw, 'kW')}`;
  return (
    <Item
      name={whose === 'claim' ? `Claimed${source ? ` by ${source}` : ''}` : 'Factory rating'}
      main={say`${figure} at the ${scale === 'wheels' ? 'wheels' : 'crank'}`}
      tone={verdict && verdict !== 'plausible' ? 'mind' : undefined}
      lines={[
        machine &&
          here[0] !== here[1] &&
          say`would read ${quantityRange(here[0], here[1], 'kW')} here, by the usual losses`,
        verdict && verdicts[verdict],
      ]}
    />
  );
}

/** What the newest setup is expected to give on its parent, and how that came out. */
function Expectation({ job, figures }: Told) {
  const setup = newestSetup(job.setups);
  const { predictionKw, letter, parentId } = setup;
  if (parentId === null) return <Item name="Expected" main="nothing yet" lines={['no setup beside what arrived']} />;
  if (predictionKw === null)
    return <Item name={`Expected of ${letter}`} main="not written" lines={['at the setup, before its first run']} />;
  const own = figures?.setups.find(({ setupId }) => setupId === setup.id);
  const measured = own && gainOnParent(own, setup);
  const score = scorePrediction({ gainKw: predictionKw }, measured);
  const parent = letterOf(job, parentId) ?? '?';
  return (
    <Item
      name={`Expected of ${letter}`}
      main={say`${difference(predictionKw, NaN, 'kW', 1)} on ${parent}`}
      tone={score === 'held' ? 'gain' : undefined}
      lines={[
        measured ? say`gave ${difference(measured.difference, measured.halfWidth, 'kW', 1)}` : 'not run yet',
        measured && score !== 'open' && predictionWords[score],
      ]}
    />
  );
}

/** Arrived, now, best and delivered: four things, each named. */
function Stands({ job, figures }: Told) {
  const arrived = figures?.setups.find(({ setupId }) => setupId === job.setups[0]?.id);
  const latest = latestOf({ job, figures });
  const best = job.runs.find(({ id }) => id === job.bestRunId);
  const delivered = letterOf(job, job.deliveredSetupId);
  const peak = ({ peakKw, halfWidthKw }: SetupFigures) => withHalfWidth(peakKw, halfWidthKw, 'kW', 1);
  return (
    <Item
      name={`Arrived with ${job.setups[0]?.letter ?? 'A'}, peak at the wheels`}
      main={arrived ? peak(arrived) : 'not run yet'}
      lines={[
        latest && latest.of !== arrived && say`${latest.letter} makes ${peak(latest.of)}`,
        best && `best run seen ${best.label}`,
        delivered ? `delivered with ${delivered}` : 'not delivered',
        job.untested && `untested: ${job.untested}`,
      ]}
    />
  );
}
