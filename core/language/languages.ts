import { germanAir } from './german/air-and-heat.ts';
import { germanChecks } from './german/checks.ts';
import { germanJudgement } from './german/judgement.ts';
import { germanLikeness } from './german/likeness.ts';
import { germanLog } from './german/log.ts';
import { germanOtherTests } from './german/other-tests.ts';
import { germanReport } from './german/report.ts';
import { germanTargets } from './german/targets.ts';
import { PhraseBook } from './phrase-book.ts';

/** Languages that a report is written in. To add one: a folder of phrases beside german/, and a line here. */
export const languages = {
  en: undefined,
  de: new PhraseBook('de', 'Deutsch', 'und', [
    germanReport,
    germanJudgement,
    germanLikeness,
    germanAir,
    germanChecks,
    germanLog,
    germanOtherTests,
    germanTargets,
  ]),
} as const satisfies Record<string, PhraseBook | undefined>;
export type LanguageId = keyof typeof languages;
export const languageIds = Object.keys(languages) as LanguageId[];
export const languageNames: Record<LanguageId, string> = { en: 'English', de: 'Deutsch' };

/** The book of a language; undefined for English, which needs none. */
export const languageNamed = (id: string): PhraseBook | undefined =>
  Object.entries(languages).find(([name]) => name === id)?.[1];
