import Papa from 'papaparse';
import { msOf, type DayRun, type StateAct, type WorkTime } from '../day/day-facts.ts';
import { workedMs, workedStretches } from '../day/worked-stretches.ts';

export type ChargedPer = 'dyno hour' | 'work hour' | 'litre' | 'tune file' | 'piece';

export interface Price {
  name: string;
  per: ChargedPer;
  amount: number;
  currency: string;
}

/** A line of what a job came to. */
export interface Charge extends Pick<Price, 'per' | 'amount' | 'currency'> {
  what: string;
  quantity: number;
}

/** What a job's acts tell of its time and what went into it. */
export interface ChargedJob {
  id: number;
  runs: readonly DayRun[];
  states: readonly StateAct[];
  workTimes: readonly WorkTime[];
  /** Litres that were added on the dyno's side. */
  fuelAdded: readonly { litres: number | null }[];
  tuneFiles: number;
}

const hourMs = 3_600_000;

/** A line that the acts propose: its quantity is theirs, its price the list's. */
export interface Proposal extends Charge {
  /** How the quantity comes about, in words. */
  from: string;
}

/**
 * Hours on the dyno and of work at all, day by day: from the first run of a day to its last, pauses left out, or as
 * put right by hand; time on the floor counts as work alone.
 * @param dayOf the calendar day of a moment, by the shop's clock
 */
export function chargedHours(
  { id, runs, states, workTimes }: ChargedJob,
  dayOf: (moment: string) => string,
): { dyno: number; work: number } {
  const days = new Set([...runs, ...workTimes].map((one) => dayOf('startedAt' in one ? one.startedAt : one.startsAt)));
  let [dyno, work] = [0, 0];
  for (const day of days) {
    const ofDay = {
      runs: runs.filter(({ startedAt }) => dayOf(startedAt) === day),
      states: states.filter(({ at }) => dayOf(at) === day),
      workTimes: workTimes.filter(({ startsAt }) => dayOf(startsAt) === day),
    };
    const last = Math.max(0, ...ofDay.runs.map(({ startedAt, endedAt }) => msOf(endedAt ?? startedAt)));
    const stretches = workedStretches(ofDay, { id, state: 'closed' }, undefined, last);
    work += workedMs(stretches) / hourMs;
    dyno += workedMs(stretches.filter(({ bay }) => bay !== null)) / hourMs;
  }
  return { dyno, work };
}

/** Quarters of an hour are charged, rounded up. */
const quarters = (hours: number) => Math.ceil(hours * 4 - 1e-9) / 4;

/** What the acts of a job propose to charge: the first price of the list for each thing; what has no price or no quantity is left out. */
export function proposals(job: ChargedJob, prices: readonly Price[], dayOf: (moment: string) => string): Proposal[] {
  const hours = chargedHours(job, dayOf);
  const litres = job.fuelAdded.reduce((sum, entry) => sum + (entry.litres ?? 0), 0);
  const told: [ChargedPer, number, string][] = [
    ['dyno hour', quarters(hours.dyno), `first to last run of each day, pauses left out: ${hours.dyno.toFixed(2)} h`],
    ['work hour', quarters(hours.work), `on the dyno and on the floor: ${hours.work.toFixed(2)} h`],
    ['litre', litres, 'added, by the fuel ledger'],
    ['tune file', job.tuneFiles, 'stored with its setups'],
  ];
  return told.flatMap(([per, quantity, from]): Proposal[] => {
    const price = prices.find((one) => one.per === per);
    return price && quantity > 0
      ? [{ what: price.name, per, quantity, amount: price.amount, currency: price.currency, from }]
      : [];
  });
}

/** What lines come to, by currency: two are never added up. */
export function sums(lines: readonly Charge[]): { currency: string; amount: number }[] {
  const byCurrency = new Map<string, number>();
  // Added up in hundredths, so that the sum of a long list is right to the cent.
  for (const { currency, quantity, amount } of lines)
    byCurrency.set(currency, (byCurrency.get(currency) ?? 0) + Math.round(quantity * amount * 100));
  return Array.from(byCurrency, ([currency, cents]) => ({ currency, amount: cents / 100 }));
}

/** `1,234.50 €` */
export const moneyWords = (amount: number, currency: string): string =>
  `${amount.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })} ${currency}`;

const unitsOf: Record<ChargedPer, string> = {
  'dyno hour': 'h',
  'work hour': 'h',
  litre: 'L',
  'tune file': '×',
  piece: '×',
};

/** `2.25 h` */
export const quantityWords = ({ quantity, per }: Pick<Charge, 'quantity' | 'per'>): string =>
  `${Number(quantity.toFixed(2))} ${unitsOf[per]}`;

/** The lines and their sum as text, for an invoice that is written elsewhere. */
export function chargesText(lines: readonly Charge[]): string {
  const rows = lines.map(
    (line) =>
      `${line.what}: ${quantityWords(line)} at ${moneyWords(line.amount, line.currency)} = ${moneyWords(line.quantity * line.amount, line.currency)}`,
  );
  return [...rows, ...sums(lines).map(({ amount, currency }) => `Sum: ${moneyWords(amount, currency)}`)].join('\n');
}

/** The lines as a table, for a spreadsheet. */
export function chargesCsv(lines: readonly (Charge & { why?: string })[]): string {
  return Papa.unparse([
    ['what', 'quantity', 'unit', 'price', 'sum', 'currency', 'why'],
    ...lines.map(({ what, quantity, per, amount, currency, why = '' }) => [
      what,
      quantity,
      per,
      amount,
      Math.round(quantity * amount * 100) / 100,
      currency,
      why,
    ]),
  ]);
}

/** What a part gained for its money: power for 100 of the currency, with half of its interval; undefined where it cost nothing. */
export function gainFor100(
  gainKw: number,
  halfWidthKw: number,
  cost: number,
): { kw: number; halfWidthKw: number } | undefined {
  return cost > 0 ? { kw: (100 * gainKw) / cost, halfWidthKw: (100 * halfWidthKw) / cost } : undefined;
}
