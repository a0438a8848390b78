import type { OwnUnits } from '../../units/own-units.ts';
import { jobEntryKinds, type JobEntryKind } from '../../../contract/job/entries.ts';
import type { Change } from '../../../contract/job/job-file.ts';
import type { Job } from '../../../contract/job/records.ts';
import { limitQuantities, type LimitQuantity } from '../../../core/limits/limit.ts';
import { setupLetter } from '../../../core/setup/letter.ts';
import { inspectionItems } from '../../../core/inspection/inspection-items.ts';

/** Something that happened to a job, in a line. */
export interface TimelineEvent {
  key: string;
  at: string;
  text: string;
  /** Who did it, where there are accounts. */
  person?: string | null;
  /** What people wrote stands out from what was noted by the way. */
  kind: 'run' | 'note' | 'change';
}

const fieldWords: Record<string, string> = {
  question: 'Question',
  use: 'Use',
  target: 'Target',
  notWanted: 'Not wanted',
  claimedValue: 'Claimed figure',
  claimedSource: 'Claimed by',
  deliverables: 'To be delivered',
  wantedPercent: 'Change that matters',
  gear: 'Gear',
  tyrePressureKpa: 'Tyre pressure',
  fan: 'Fan',
  bonnet: 'Bonnet',
  dynoKind: 'Dyno',
  untested: 'Left untested',
};

/** What a run was made under; the fields that go with another say nothing of their own. */
const circumstanceWords: Record<string, string> = {
  startedAt: 'date and time',
  dyno: 'dyno',
  engineToDrumRatio: 'ratio',
  gear: 'gear',
  air: 'air',
  startTemperatures: 'start temperatures',
  fuel: 'fuel',
  tyres: 'tyres',
  tyrePressureKpa: 'tyre pressure',
  fan: 'fan',
  bonnet: 'bonnet',
  loadMode: 'load',
  remounted: 'strapping',
  kind: 'kind',
};

type Fields = Record<string, unknown>;
const text = (value: unknown) => {
  if (value === null || value === undefined || value === '') return '–';
  return typeof value === 'string' ? value : JSON.stringify(value);
};

const limitLabel = (quantity: unknown) =>
  limitQuantities[quantity as LimitQuantity]?.label.toLowerCase() ?? text(quantity);
const itemText = (job: Job, key: unknown) => inspectionItems(job).find((item) => item.key === key)?.text ?? text(key);

/** What a change says; undefined where it says nothing of its own. */
function wordsOf({ subject, before, after, rowId }: Change, job: Job, own: OwnUnits): string | undefined {
  const said = (value: unknown) => value !== null && value !== undefined;
  const gone = said(after.removedAt);
  const back = before !== null && said(before.removedAt) && after.removedAt === null;
  const verb = gone ? ' taken away' : back ? ' brought back' : before ? ' changed' : '';
  const named = (what: string, name: unknown) => `${what}${name ? ` ${text(name)}` : ''}${verb}`;
  const letter = () => job.setups.find((setup) => setup.id === rowId)?.letter ?? 'A setup';
  const of = <T extends { id: number }>(list: readonly T[]) => list.find(({ id }) => id === rowId);
  const ownWords: Record<KindWithOwnWords, () => string | undefined> = {
    limits: () => named('Limit:', limitLabel(after.quantity ?? of(job.limits)?.quantity)),
    inspections: () =>
      after.outcome === 'fail'
        ? `Inspection failed: ${itemText(job, after.key ?? of(job.inspections)?.key)}`
        : undefined,
    fuelEntries: () => {
      if (before) return named('Fuel entry', '');
      const { kind, litres, name, ethanolPct } = after;
      const parts = [
        text(kind),
        litres && own.whole(Number(litres), 'L'),
        name,
        said(ethanolPct) && `${text(ethanolPct)} %`,
      ];
      return `Fuel ${parts.filter(Boolean).join(' ')}`;
    },
    suspicions: () => {
      if (after.state && before) return `${of(job.suspicions)?.cause ?? 'Suspicion'}: ${text(after.state)}`;
      return before && !gone && !back ? undefined : named('Suspicion:', after.cause ?? of(job.suspicions)?.cause);
    },
  };
  switch (subject) {
    case 'job':
      return before ? jobWords(before, after, job, own) : 'Job begun';
    case 'setup':
      if (!before) return `Setup ${setupLetter(Number(after.position))}: ${text(after.change)}`;
      if (gone || back) return `Setup ${letter()}${verb}`;
      if (after.decision)
        return [
          `${letter()}: ${text(after.decision)}${after.decisionWhy ? `, ${text(after.decisionWhy)}` : ''}`,
          ...(after.decidedOn ? [text(after.decidedOn)] : []),
        ].join('. ');
      if ('change' in after) return `Setup ${letter()} reworded: ${text(after.change)}`;
      if (said(after.predictionKw))
        return `${letter()} is expected to give ${own.whole(Number(after.predictionKw), 'kW')}`;
      return undefined;
    case 'baseline':
      return `Baseline frozen, version ${text(after.version)}${after.why ? `: ${text(after.why)}` : ''}`;
    case 'run': {
      const label = of(job.runs)?.label ?? 'A run';
      if (after.setAsideReason) return `${label} set aside: ${text(after.setAsideReason)}`;
      if ('setAsideReason' in after) return `${label} counts again`;
      if (after.note) return `${label}: “${text(after.note)}”`;
      if (said(after.setupId)) return `${label} put into another setup`;
      const right = Object.keys(after).flatMap((name) => circumstanceWords[name] ?? []);
      if (before && right.length > 0) return `${label} put right: ${right.join(', ')}`;
      return undefined;
    }
    case 'setup_tune_file':
      return named('Tune file', after.name ?? of(job.tuneFiles)?.name);
    case 'tuner_package':
      return before
        ? named('Package for the tuner', '')
        : `Sent to the tuner: ${text(after.runs)} ${after.runs === 1 ? 'run' : 'runs'}`;
    case 'shared_link':
      return before
        ? named('Shared link', after.whom)
        : `Shared to read${after.whom ? ` with ${text(after.whom)}` : ''}, until ${text(after.endsAt).slice(0, 10)}`;
    case 'photo':
      return before && !gone && !back ? undefined : named('Photo', after.caption ?? of(job.photos)?.caption);
    default:
      return entryWords();
  }

  /** Of a short list, as the list describes itself. */
  function entryWords(): string | undefined {
    const kind = (Object.keys(jobEntryKinds) as JobEntryKind[]).find((one) => jobEntryKinds[one].table === subject);
    if (kind === undefined) return undefined;
    const { timeline } = jobEntryKinds[kind];
    if (timeline === 'nothing') return undefined;
    if (timeline === 'own words') return ownWords[kind as KindWithOwnWords]();
    const now: Fields | undefined = of<Fields & { id: number }>(job[kind] ?? []);
    return named(timeline.word, after[timeline.named] ?? now?.[timeline.named]);
  }
}

type KindWithOwnWords = {
  [Kind in JobEntryKind]: (typeof jobEntryKinds)[Kind]['timeline'] extends 'own words' ? Kind : never;
}[JobEntryKind];

function jobWords(before: Fields, after: Fields, job: Job, own: OwnUnits): string | undefined {
  if (after.state === 'closed') {
    const delivered = job.setups.find((setup) => setup.id === (after.deliveredSetupId ?? job.deliveredSetupId));
    return `Job closed${delivered ? `, delivered with ${delivered.letter}` : ''}`;
  }
  if (after.state === 'paused') return `Paused${after.pausedWhy ? `: ${text(after.pausedWhy)}` : ''}`;
  if (after.state === 'open') return before.state === 'closed' ? 'Reopened' : 'Resumed';
  const field = Object.keys(after).find((name) => fieldWords[name]);
  const said =
    field === 'tyrePressureKpa' && typeof after[field] === 'number' ? own.whole(after[field], 'kPa') : undefined;
  return field && `${fieldWords[field]}: ${said ?? text(after[field])}`;
}

/** Runs of one setup that follow one another are told in one line. */
function together(events: readonly TimelineEvent[]): TimelineEvent[] {
  const told: TimelineEvent[] = [];
  for (const event of events) {
    const last = told.at(-1);
    const letter = (text: string) => /^([A-Z]+)\d/.exec(text)?.[1];
    const sameDay = last && new Date(last.at).toDateString() === new Date(event.at).toDateString();
    const goesOn = sameDay && last.kind === 'run' && event.kind === 'run' && letter(last.text) === letter(event.text);
    const [first, rest] = goesOn ? [event.text.split(' ')[0]!, last.text] : ['', ''];
    if (goesOn && event.text.endsWith('recorded') && rest.endsWith('recorded'))
      told[told.length - 1] = { ...last, key: event.key, at: event.at, text: `${first}, ${rest}` };
    else told.push(event);
  }
  return told;
}

/** Every event of a job, the last first. */
export function timelineOf(job: Job, changes: readonly Change[], own: OwnUnits): TimelineEvent[] {
  const told = changes.flatMap((change): TimelineEvent[] => {
    const words = wordsOf(change, job, own);
    return words
      ? [{ key: `change-${change.id}`, at: change.at, text: words, person: change.person, kind: 'change' }]
      : [];
  });
  const runs = job.runs.map((run): TimelineEvent => ({
    key: `run-${run.id}`,
    at: run.startedAt,
    text: `${run.label} ${run.state === 'recording' ? 'is being recorded' : run.kind === 'conditioning' ? 'conditioning' : 'recorded'}`,
    ...(run.recordedBy && { person: run.recordedBy }),
    kind: 'run',
  }));
  const notes = job.notes.map((note): TimelineEvent => ({
    key: `note-${note.id}`,
    at: note.at,
    text: note.text,
    kind: 'note',
  }));
  return together([...told, ...runs, ...notes].sort((a, b) => Date.parse(b.at) - Date.parse(a.at)));
}
