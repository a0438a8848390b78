import type { MachineKind } from '../dyno/dyno-profile.ts';
import { quantity, quantityRange, say, type Sentence } from '../sentence/sentence.ts';
import { lastOnDyno } from '../job/last-on-dyno.ts';
import { convert } from '../units/units.ts';
import type { Cell, Content, LargeFigure } from './report.ts';
import type { ReportSource } from './reported-job.ts';

/** What usually gets lost between crank and dyno, as shares: a stated default until a shop has learned its own. */
export const usualLoss: Readonly<Record<MachineKind, readonly [least: number, most: number]>> = {
  'inertia-roller': [0.12, 0.22],
  'loaded-roller': [0.12, 0.22],
  hub: [0.08, 0.18],
};

export type Plausible = 'plausible' | 'less' | 'more';

/** Whether a reading with its interval fits an expected range, all in kW at the wheels. */
export function plausible(readKw: number, halfWidthKw: number, [least, most]: readonly [number, number]): Plausible {
  if (readKw + halfWidthKw < least) return 'less';
  return readKw - halfWidthKw > most ? 'more' : 'plausible';
}

const verdicts: Record<Plausible, string> = {
  plausible: 'plausible',
  less: 'less than that: find the fault first',
  more: 'more than that: a changed car, or look at dyno and correction',
};

/** What rating and claim would read here, held against what arrived: for orientation, never a baseline. */
export function expectation({ job, figures }: ReportSource, arrived: LargeFigure | undefined): Content | undefined {
  const kind = lastOnDyno(job.runs)?.dyno.kind;
  if (!arrived || !kind || kind === 'road' || figures.estimate !== undefined) return undefined;
  const atWheels = (kw: number): readonly [number, number] => [kw * (1 - usualLoss[kind][1]), kw * (1 - usualLoss[kind][0])]; // prettier-ignore
  const { factoryKw } = job.car;
  const { claimedValue, claimedUnit, claimedScale, claimedSource } = job;
  const claimKw = claimedValue === null ? null : convert(claimedValue, claimedUnit, 'kW');
  const rows: Cell[][] = [];
  if (factoryKw !== null) rows.push(row('factory rating, at the crank', factoryKw, atWheels(factoryKw), arrived));
  if (claimKw !== null) {
    const wheels = claimedScale === 'wheels';
    const where = wheels ? 'at the wheels' : claimedScale === 'crank' ? 'at the crank' : 'scale not said, taken as the crank’s'; // prettier-ignore
    rows.push(row(`claimed${claimedSource ? ` by ${claimedSource}` : ''}, ${where}`, claimKw, wheels ? [claimKw, claimKw] : atWheels(claimKw), arrived)); // prettier-ignore
  }
  if (rows.length === 0) return undefined;
  const [least, most] = usualLoss[kind].map((share) => Math.round(100 * share));
  return {
    is: 'table',
    head: [{ text: 'figure' }, { text: 'told', right: true }, { text: 'would read here', right: true }, { text: 'as arrived' }], // prettier-ignore
    rows,
    note: `From crank to ${kind === 'hub' ? 'hubs' : 'rollers'} ${least} to ${most} % are taken to be lost: a usual range, not measured on this car. Rating and claim are for orientation and never a baseline.`, // prettier-ignore
  };
}

function row(
  name: string,
  toldKw: number,
  range: readonly [number, number],
  { kw, halfWidthKw = 0 }: LargeFigure,
): Cell[] {
  const here: Sentence =
    range[0] === range[1] ? say`${quantity(range[0], 'kW')}` : quantityRange(range[0], range[1], 'kW');
  const verdict = plausible(kw, halfWidthKw, range);
  return [
    { text: name },
    { text: say`${quantity(toldKw, 'kW')}`, right: true },
    { text: here, right: true },
    { text: say`${{ value: kw, unit: 'kW', digits: 1 }}: ${verdicts[verdict]}`, ...(verdict !== 'plausible' && { tone: 'warning' as const }) }, // prettier-ignore
  ];
}
