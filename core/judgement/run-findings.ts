import { capitalised, say, written, type Sentence } from '../sentence/sentence.ts';
import { byGravity, type Finding, type Severity } from '../checks/check.ts';
import { brokenWords } from '../limits/broken-words.ts';
import type { BrokenLimit } from '../limits/broken-limits.ts';
import type { LogEvent } from '../log/pull/run-log.ts';
import { listed, spokenRpm } from '../units/spoken.ts';

/** Something that was found on a run, whoever shows it. */
export interface RunFinding {
  /** Of the check, the event, or the limit. */
  id: string;
  /** A limit that nothing in the log tells of, something in the log, or in the run's motion and air. */
  from: 'limit' | 'log' | 'check';
  severity: Severity;
  message: Sentence;
  /** How bad it is among findings of its kind: more is worse. */
  weight: number;
  /** True where it tells of a broken limit. */
  limit: boolean;
}

/** Events whose figure is a reading that is worse the less it is. */
const lessIsWorse: ReadonlySet<string> = new Set(['oil-pressure-low', 'low-battery', 'rich']);

/** How bad an event is among its kind. */
const weightOf = ({ id, figure }: Pick<LogEvent, 'id' | 'figure'>) =>
  lessIsWorse.has(id) ? -figure : Math.abs(figure);

/** What was found on one run, the gravest first, a broken limit told once: by the log where it shows where. */
export function runFindings(
  broken: readonly BrokenLimit[],
  events: readonly LogEvent[],
  checks: readonly Finding[],
): RunFinding[] {
  const told = new Set(events.map(({ limit }) => limit));
  return [
    ...broken
      .filter(({ quantity }) => !told.has(quantity))
      .map((limit): RunFinding => ({
        id: `limit-${limit.quantity}`,
        from: 'limit',
        severity: 'stop',
        message: say`${capitalised(brokenWords(limit))}.`,
        weight: Math.abs(limit.reading - limit.limit),
        limit: true,
      })),
    ...alikeOnce(events).map(({ id, severity, message, limit, figure }): RunFinding => ({
      id,
      from: 'log',
      severity,
      message,
      weight: weightOf({ id, figure }),
      limit: limit !== undefined,
    })),
    ...checks.map(({ id, severity, message, figure = 0 }): RunFinding => ({
      id,
      from: 'check',
      severity,
      message,
      weight: Math.abs(figure),
      limit: false,
    })),
  ].sort(byGravity);
}

/** Events of one kind as one: the gravest in its own words, and where it happened besides. */
function alikeOnce(events: readonly LogEvent[]): LogEvent[] {
  const kinds = new Map<string, LogEvent[]>();
  for (const event of events) kinds.set(event.id, [...(kinds.get(event.id) ?? []), event]);
  return Array.from(kinds.values(), (alike) => {
    const [first, ...others] = [...alike].sort((a, b) => byGravity(a, b) || weightOf(b) - weightOf(a));
    const places = others
      .sort((a, b) => a.fromS - b.fromS)
      .map(({ fromRpm, toRpm }) =>
        fromRpm === toRpm ? `at ${spokenRpm(fromRpm)}` : `from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)}`,
      );
    return places.length === 0 || !first
      ? alike[0]!
      : { ...first, message: say`${first.message} Also ${listed(places)} rpm.` };
  });
}

/** What was found on one run, or on several alike. */
export interface Mark {
  severity: Severity;
  labels: string[];
  message: Sentence;
}

/**
 * What several runs have in common, said once with all their labels, the
 * gravest first. The figures are those of the run where it is worst. What stands
 * several times on one run stays as many.
 */
export function saidOnce(runs: readonly { label: string; found: readonly RunFinding[] }[]): Mark[] {
  const marks = new Map<string, Mark & { of: string; differ: boolean; weight: number }>();
  for (const { label, found } of runs) {
    const seen = new Map<string, number>();
    for (const { id, severity, message, weight } of found) {
      const before = seen.get(id) ?? 0;
      seen.set(id, before + 1);
      const key = `${id} ${before}`;
      const mark = marks.get(key);
      if (!mark) marks.set(key, { severity, labels: [label], message, of: label, differ: false, weight });
      else {
        if (!mark.labels.includes(label)) mark.labels.push(label);
        mark.differ ||= written(message) !== written(mark.message);
        const graver = byGravity({ severity }, mark);
        if (graver < 0 || (graver === 0 && weight > mark.weight))
          Object.assign(mark, { severity, message, of: label, weight });
      }
    }
  }
  return Array.from(marks.values(), ({ severity, labels, message, of, differ }) => ({
    severity,
    labels,
    message: labels.length > 1 && differ ? say`${message} The figures are those of ${of}.` : message,
  })).sort(byGravity);
}
