import { lastOnDyno } from '../job/last-on-dyno.ts';
import { toldFigures, usualLossPercent, type Plausible, type ToldFigure } from '../judgement/told-figures.ts';
import { quantity, quantityRange, say, type Sentence } from '../sentence/sentence.ts';
import type { Cell, Content, LargeFigure } from './report.ts';
import type { ReportSource } from './reported-job.ts';

const verdicts: Record<Plausible, string> = {
  plausible: 'plausible',
  less: 'less than that: find the fault first',
  more: 'more than that: a changed car, or look at dyno and correction',
};

/** What rating and claim would read here, held against what arrived: for orientation, never a baseline. */
export function expectation({ job, figures }: ReportSource, arrived: LargeFigure | undefined): Content | undefined {
  const kind = lastOnDyno(job.runs)?.dyno.kind;
  if (!arrived || !kind || kind === 'road' || figures.estimate !== undefined) return undefined;
  const rows = toldFigures(job, kind, arrived).map((told) => row(told, arrived));
  if (rows.length === 0) return undefined;
  const [least, most] = usualLossPercent(kind);
  return {
    is: 'table',
    head: [
      { text: 'figure' },
      { text: 'told', right: true },
      { text: 'would read here', right: true },
      { text: 'as arrived' },
    ],
    rows,
    note: `From crank to ${kind === 'hub' ? 'hubs' : 'rollers'} ${least} to ${most} % are taken to be lost: a usual range, not measured on this car. Rating and claim are for orientation and never a baseline.`,
  };
}

function row({ whose, source, scale, kw, here, verdict = 'plausible' }: ToldFigure, arrived: LargeFigure): Cell[] {
  const where =
    scale === 'wheels' ? 'at the wheels' : scale === 'crank' ? 'at the crank' : 'scale not said, taken as the crank’s';
  const name =
    whose === 'factory rating' ? 'factory rating, at the crank' : `claimed${source ? ` by ${source}` : ''}, ${where}`;
  const range: Sentence = here[0] === here[1] ? say`${quantity(here[0], 'kW')}` : quantityRange(here[0], here[1], 'kW');
  return [
    { text: name },
    { text: say`${quantity(kw, 'kW')}`, right: true },
    { text: range, right: true },
    {
      text: say`${{ value: arrived.kw, unit: 'kW', digits: 1 }}: ${verdicts[verdict]}`,
      ...(verdict !== 'plausible' && { tone: 'warning' as const }),
    },
  ];
}
