import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { composeReport } from '../report/compose-report.ts';
import { untouched } from '../report/drafted.ts';
import { writtenReport, type WrittenReport } from '../report/written-report.ts';
import { quantity, say, written } from '../sentence/sentence.ts';
import { exampleRuns, reportSourceOf } from '../testing/reported-example.ts';
import { keptUnits } from '../units/told-units.ts';
import { germanAir } from './german/air-and-heat.ts';
import { germanChecks } from './german/checks.ts';
import { germanJudgement } from './german/judgement.ts';
import { germanLikeness } from './german/likeness.ts';
import { germanLog } from './german/log.ts';
import { germanOtherTests } from './german/other-tests.ts';
import { germanReport } from './german/report.ts';
import { languages } from './languages.ts';

const book = languages.de;
const phrases = {
  ...germanAir,
  ...germanChecks,
  ...germanJudgement,
  ...germanLikeness,
  ...germanLog,
  ...germanOtherTests,
  ...germanReport,
};
const german = { ...keptUnits, language: book };

test('what is put in stands in the order of the other language, with its figures, units and own words', () => {
  expect(
    book.text(
      'Torque falls to 62 % for 0.35 s at 4,500 rpm and comes back: the throttle was not held, or the engine controller took it back.',
    ),
  ).toMatch(/^Das Drehmoment fällt bei 4\.500 rpm für 0,35 s auf 62 % und kommt zurück/);
  expect(written(say`Boost overshoots ${'its target'} by ${quantity(2.46, 'kW')} at ${'3,250'} rpm.`, german)).toBe(
    'Der Ladedruck schießt bei 3.250 rpm um 2,5 kW über seinen Sollwert hinaus.',
  );
  expect(written(say`The question was: ${'Does the ram pipe pay?'}`, german)).toBe(
    'Die Frage war: Does the ram pipe pay?',
  );
  expect(book.text('the plan is not full: 2 more runs of B and 1 more run of A')).toBe(
    'der Plan ist nicht erfüllt: 2 weitere Läufe von B und 1 weiterer Lauf von A',
  );
  expect(book.text('r2.bin, SAE J1349, 1.25 λ, 12,345.5')).toBe('r2.bin, SAE J1349, 1,25 λ, 12.345,5');
  expect(book.text('Ignition +1.5° above 4,000')).toBe('Ignition +1.5° above 4,000');
});

test('each phrase puts in what it was given, all of it and nothing else', () => {
  const holes = (text: string) => [...new Set([...text.matchAll(/\{(\d+)/g)].map(([, index]) => index))].sort();
  for (const [said, as] of Object.entries(phrases)) expect([said, holes(as)]).toEqual([said, holes(said)]);
});

test('each phrase is one that is said: its words stand in core, those of a long one mostly beside one another', () => {
  const files = readdirSync('core', { recursive: true, encoding: 'utf8' }).filter(
    (name) => name.endsWith('.ts') && !name.startsWith('language') && !name.endsWith('.test.ts'),
  );
  const wordsOf = (text: string) => text.toLowerCase().match(/\p{L}+(?:[’'-]\p{L}+)*/gu) ?? [];
  const pairsOf = (words: readonly string[]) => words.slice(1).map((word, at) => `${words[at]} ${word}`);
  const sources = files.map((name) => wordsOf(readFileSync(join('core', name), 'utf8').replaceAll("\\'", "'")));
  const [words, pairs] = [new Set(sources.flat()), new Set(sources.flatMap(pairsOf))];
  // Ordinals of gears are typed, months are the calendar's.
  const elsewhere = /^([1-7](st|nd|rd|th)|\{0#\} \p{Lu}\p{L}+ \{1#\})$/u;
  const strange = Object.keys(phrases).filter((phrase) => {
    const parts = phrase.split(/\{\d+[#,]?\}/).map(wordsOf);
    const beside = parts.flatMap(pairsOf);
    const apart = beside.filter((pair) => !pairs.has(pair)).length;
    return (
      !elsewhere.test(phrase) &&
      (parts.flat().some((word) => !words.has(word)) || (beside.length > 4 && apart > 0.3 * beside.length))
    );
  });
  expect(strange).toEqual([]);
});

/** Words that no German sentence has; those of the example's own people and cars are left out. */
const english =
  /(?<![\p{L}(-])(the|of|and|is|were|with|from|runs?|gain|at|for|by|mean|speed|power|torque|known|shown|not|to)(?![\p{L}])/iu;
const ownWords = ['Does it pay above 5,000?', 'Short intake', 'Plug gap 0.7 mm', 'the seller', 'Cold start', 'climb'];

function leftInEnglish(report: WrittenReport): string[] {
  const texts: string[] = [];
  JSON.stringify(report.blocks, (key, value: unknown) => {
    if (key === 'id' || key === 'is' || key === 'tone' || key === 'severity') return undefined;
    if (typeof value === 'string') texts.push(value);
    return value;
  });
  const without = (text: string) => ownWords.reduce((left, own) => left.replaceAll(own, '…'), text);
  return texts.filter((text) => english.test(without(text)));
}

const germanReportOf = (source: ReturnType<typeof reportSourceOf>) =>
  writtenReport(composeReport(source), { ...untouched, language: 'de' }, source, { ...german, space: '\u00a0' });

test('a whole report is written in it, its curves too, and no English is left but what people wrote', () => {
  const report = germanReportOf(reportSourceOf());
  expect(report.blocks.map(({ title }) => title).filter(Boolean)).toContain('Wie die Zahlen entstanden sind');
  const answer = report.blocks[0]!.content;
  expect(answer.is === 'answer' && answer.headline.replaceAll('\u00a0', ' ')).toMatch(
    /^\d,\d ± \d,\d kW mehr von 4\.500 bis 6\.400 rpm\.$/,
  );
  expect(leftInEnglish(report)).toEqual([]);
});

test('so is one of a single setup, and one that shows nothing', () => {
  for (const runs of [
    exampleRuns.slice(0, 3),
    exampleRuns.slice(0, 3).map((run) => (run.id === 3 ? { ...run, setupId: 2, label: 'B1' } : run)),
  ])
    expect(leftInEnglish(germanReportOf(reportSourceOf({ runs, bestRunId: null })))).toEqual([]);
});
