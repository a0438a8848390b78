import { expect, test } from '@jest/globals';
import { comparisonToJson } from '../exchange/results/comparison-json.ts';
import { judgementToJson } from '../exchange/results/judgement-json.ts';
import { composeReport } from '../report/compose-report.ts';
import type { Block, Content } from '../report/report.ts';
import type { ReportSource } from '../report/reported-job.ts';
import { difference, written } from '../sentence/sentence.ts';
import { drawnJob } from '../testing/drawn-jobs.ts';
import { shortOrWhole } from '../testing/short-or-whole.ts';
import { spokenRpm } from '../units/spoken.ts';
import { missedBands } from '../judgement/pair-judgement.ts';
import { phrasesText } from '../wording/gain-sentence.ts';
import { jobClaimWords, withheldSentence, withheldWords } from '../wording/judgement-words.ts';
import { jobHeadline } from './job-headline.ts';

const contentOf = <Is extends Content['is']>(blocks: readonly Block[], id: string, is: Is) => {
  const content = blocks.find((block) => block.id === id)?.content;
  return content?.is === is ? (content as Extract<Content, { is: Is }>) : undefined;
};
const isCalled = (claim: string | null) => claim === 'gain' || claim === 'loss';

/** What a job says of its last setup against what arrived, in every place, is the one judgement. */
function sameEverywhere(source: ReportSource): void {
  const { job, figures } = source;
  const { comparison, setups, pairs = [], attribution } = figures;
  const letterOf = (id: number) => job.setups.find((setup) => setup.id === id)!.letter;
  const own = setups.find(({ setupId }) => setupId === figures.sides.testId);
  const card = own?.onBaseline;
  const { blocks } = composeReport(source);
  const printed = judgementToJson(figures, letterOf);
  const list = jobHeadline(figures, job.setups);
  if (!comparison || !card) {
    expect(list.gain).toBeNull();
    return;
  }
  const { judgement, rows, power } = comparison;
  const letters = { test: letterOf(judgement.testId), against: letterOf(judgement.againstId) };
  const { difference: gain, halfWidth } = judgement.difference;
  const amount = written(difference(gain, halfWidth, 'kW', 1)).trim();
  const told = missedBands(judgement).length === 0;

  // One difference, one interval, one range.
  expect(card.difference.difference).toBeCloseTo(gain, 9);
  expect(card.difference.halfWidth || 0).toBeCloseTo(halfWidth || 0, 9);
  expect([card.fromRpm, card.toRpm]).toEqual([judgement.fromRpm, judgement.toRpm]);
  expect(power.ranges[0].difference).toEqual(judgement.difference);
  const row = rows.find(
    ({ quantity, fromRpm, toRpm }) =>
      quantity === 'power' && fromRpm === judgement.fromRpm && toRpm === judgement.toRpm,
  )!;
  expect([row.difference, row.halfWidth]).toEqual([gain, halfWidth]);
  const json = printed.pairs.find(({ setup, against }) => setup === letters.test && against === letters.against)!;
  expect(json.meanKw).toBeCloseTo(gain, 3);
  expect([json.fromRpm, json.toRpm]).toEqual([judgement.fromRpm, judgement.toRpm]);
  expect(printed.cards.find(({ setup }) => setup === letters.test)!.meanKw).toBeCloseTo(gain, 3);
  expect(list.gain === null).toBe(!told);
  if (list.gain) expect([list.gain.kw, list.gain.halfWidthKw ?? NaN]).toEqual([gain, halfWidth]);

  // The sentence says range and amount; a claim's amount has no sign.
  const sentence = phrasesText(comparison.sentence);
  const plain = amount.replace(/^[+−]/, '').replace(/ kW$/, '');
  expect(sentence).toContain(plain);
  expect(sentence).toContain(`from ${spokenRpm(judgement.fromRpm)} to ${spokenRpm(judgement.toRpm)} rpm`);

  // Claims: the pair's own here and there, the job's never beyond it.
  expect(json.claim?.replace('-', ' ') ?? null).toBe(judgement.claim);
  expect(json.withheld.map(({ id }) => id)).toEqual(
    judgement.withheld.map((reason) => (reason.id === 'not-alike' ? reason.respect.id : reason.id)),
  );
  expect(card.withheld.map(({ id }) => id)).toEqual(judgement.withheld.map(({ id }) => id));
  expect(list.gain?.claim ?? null).toBe(isCalled(card.jobClaim) ? card.jobClaim : null);
  if (isCalled(card.jobClaim)) expect(judgement.claim).toBe(card.jobClaim);
  const toned = comparison.sentence.some(({ tone }) => tone === 'gain' || tone === 'loss');
  if (judgement.claim === null) {
    expect(toned).toBe(false);
    expect(rows.some(({ verdict }) => isCalled(verdict))).toBe(false);
  }
  if (isCalled(judgement.claim)) expect(row.verdict).toBe(judgement.claim);
  const [first] = comparisonToJson({ ...figures, comparison }, { standard: 'sae-j1349', share: 1, auto: false }).bands;
  expect(isCalled(first!.verdict)).toBe(isCalled(judgement.claim));
  // A figure that excludes nothing is never called, and no interval is wider than a fifth.
  if (isCalled(judgement.claim)) expect(Math.abs(gain)).toBeGreaterThan(halfWidth);
  for (const { verdict, difference } of power.ranges)
    if (verdict === 'within repeatability')
      expect(Math.abs(difference.difference)).toBeLessThanOrEqual(difference.halfWidth);
  if (!Number.isNaN(halfWidth))
    expect(halfWidth).toBeLessThanOrEqual(0.2 * Math.abs(judgement.difference.baseline) * 1.05);

  // Reasons, in words, everywhere that there is room for them.
  const [reason] = judgement.withheld;
  const words = jobClaimWords(card, setups.length, letters);
  if (reason) {
    expect(words).toMatch(/^no verdict: ./);
    expect(sentence).toContain(withheldWords(reason, letters, 'kW'));
    expect(json.withheld[0]!.sentence).toBe(written(withheldSentence(reason, letters)));
  }

  // The report: its figures, answer, bands and changes.
  const large = contentOf(blocks, 'figures', 'figures')?.figures.find(({ id }) => id === 'delivered');
  if (large) expect([large.kw, large.halfWidthKw]).toEqual([own!.peakKw, own!.halfWidthKw]);
  const target = figures.targets?.[0]?.setups.find(({ setupId }) => setupId === own!.setupId);
  // A run without air tells nothing of a target under a standard, nor of the spread of its repeats.
  if (figures.runs.every(({ curve }) => curve.correction.standard !== 'none'))
    expect([target?.made, target?.halfWidth]).toEqual([own!.peakKw, own!.halfWidthKw]);
  const headline = written(contentOf(blocks, 'answer', 'answer')!.headline);
  if (isCalled(judgement.claim) && power.ranges.length === 1) expect(headline).toContain(plain);
  if (reason && power.ranges.every(({ verdict }) => !isCalled(verdict)))
    expect(headline).toMatch(/^(No fair comparison|Nothing is shown yet): /);
  if (reason && reason.id !== 'not-alike')
    expect(JSON.stringify(contentOf(blocks, 'care', 'list'))).toContain('Nothing is claimed from');
  const stops = comparison.caveats.filter(({ severity }) => severity === 'stop').map(({ text }) => written(text));
  const care = contentOf(blocks, 'care', 'list')!.items.map(({ text }) => written(text));
  for (const stop of stops) expect(care).toContain(stop);
  const inBand = contentOf(blocks, 'bands', 'table')?.rows.map((cells) => cells.map(({ text }) => written(text)));
  for (const missed of power.uncovered)
    expect(
      inBand!.some((cells) => cells[0]!.includes(spokenRpm(missed.fromRpm)) && /^not covered/.test(cells[3]!)),
    ).toBe(true);
  if (inBand && told) expect(inBand.flat()).toContain(amount);

  // Broken limits: list, driver's view and Compare read the same runs.
  const broke = figures.runs.filter(({ setupId, broken }) => setupId === own!.setupId && broken.length > 0);
  expect(list.broke).toBe(broke.at(-1)?.label ?? null);
  if (broke.length > 0) {
    expect(sentence).toContain('beyond a limit');
    expect(figures.bestId).not.toBe(own!.setupId);
  }

  // Steps: each has its pair's own interval where it is over the pair's range; claims come from the job's.
  for (const { setupId, beforeId, gain: ofStep } of attribution?.steps ?? []) {
    const pair = setups.find((setup) => setup.setupId === setupId)?.onParent;
    if (
      !ofStep ||
      pair?.againstId !== beforeId ||
      pair?.fromRpm !== attribution!.fromRpm ||
      pair.toRpm !== attribution!.toRpm
    )
      continue;
    expect(ofStep.difference).toBeCloseTo(pair.difference.difference, 9);
    expect(ofStep.halfWidth || 0).toBeCloseTo(pair.difference.halfWidth || 0, 9);
    const whole = pairs.find(({ judgement: one }) => one.testId === setupId && one.againstId === beforeId)!;
    expect(whole.judgement.difference.halfWidth || 0).toBeCloseTo(pair.difference.halfWidth || 0, 9);
  }
}

const jobs = shortOrWhole(200, 1000);

test(`in ${jobs} jobs as shops bring them, claim, interval, range and reasons are the same in every place`, () => {
  const seen = new Map<string, number>();
  for (let seed = 1; seed <= jobs; seed++) {
    const source = drawnJob(seed);
    try {
      sameEverywhere(source);
    } catch (error) {
      throw new Error(`job of seed ${seed}: ${(error as Error).message}`, { cause: error });
    }
    const { comparison } = source.figures;
    const kind = comparison
      ? (comparison.judgement.claim ?? comparison.judgement.withheld[0]!.id)
      : 'nothing to compare';
    seen.set(kind, (seen.get(kind) ?? 0) + 1);
  }
  // The draw reaches every kind of outcome.
  for (const kind of ['gain', 'within repeatability', 'not-alike', 'band-not-covered', 'spread-assumed'])
    expect([kind, (seen.get(kind) ?? 0) > 0]).toEqual([kind, true]);
});
