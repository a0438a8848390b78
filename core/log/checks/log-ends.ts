import { sampleAt } from '../../numerics/sample-at.ts';
import { channelLabel } from '../../recording/channels.ts';
import { say, type Sentence } from '../../sentence/sentence.ts';
import { listed, spokenRpm } from '../../units/spoken.ts';
import { eventAt, pullOf, type JudgedLog, type LogEvent } from '../pull/run-log.ts';

/** A channel that ends this long before the pull does, s and as a share of it, leaves a part of it unwatched. */
const leastS = 0.4;
const leastShare = 0.06;
/** So many channels are named. */
const mostNamed = 3;
/** Of the dyno itself: they say nothing of what a logger saw. */
const ofDyno = new Set(['engineSpeed', 'rollerSpeed', 'hubSpeed', 'time']);

/** Found when a log, or some of its channels, ends before the pull does: what is not read is not judged. */
export function logEnds(log: JudgedLog): LogEvent[] {
  const [first, last] = pullOf(log);
  const { time, startS, endS, engineSpeedRpm } = log;
  const missed = Math.max(leastS, leastShare * (endS - startS));
  const ended = [...log.channels].flatMap(([name, values]) => {
    if (ofDyno.has(name)) return [];
    let at = last;
    while (at >= first && Number.isNaN(sampleAt(values, at))) at--;
    return at > first && sampleAt(time, last) - sampleAt(time, at) > missed ? [{ name, at }] : [];
  });
  if (ended.length === 0) return [];
  const earliest = ended.reduce((a, b) => (b.at < a.at ? b : a)).at;
  const labels = ended.map(({ name }) => channelLabel(name));
  const named =
    labels.length > mostNamed ? [...labels.slice(0, mostNamed), `${labels.length - mostNamed} more`] : labels;
  return [
    eventAt(
      log,
      { from: earliest, to: last },
      {
        id: 'log-ends',
        name: 'log ends',
        severity: 'mind',
        figure: sampleAt(time, last) - sampleAt(time, earliest),
        unit: 's',
        message: endedWords(listed(named), ended.length, spokenRpm(sampleAt(engineSpeedRpm, earliest))),
        channels: ended.map(({ name }) => name),
      },
    ),
  ];
}

function endedWords(names: string, count: number, rpm: string): Sentence {
  return count === 1
    ? say`${names} ends at ${rpm} rpm, before the pull does: nothing is known of it beyond that, and no limit of it is watched there.`
    : say`${names} end at ${rpm} rpm, before the pull does: nothing is known of them beyond that, and no limit of them is watched there.`;
}
