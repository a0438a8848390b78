import { Menu } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import type { Job } from '../../../contract/records.ts';
import { standards } from '../../../core/air/correction.ts';
import { comparisonToJson } from '../../../core/exchange/comparison-json.ts';
import { curvesCsv, type CurveColumn } from '../../../core/exchange/curves-csv.ts';
import type { JobFigures } from '../../../core/gain/job-figures.ts';
import { convert } from '../../../core/units/units.ts';
import { usePrint } from '../../app/printing.ts';
import { formatSpan, scaleNote } from '../../ui/figures.ts';
import classes from './how-made.module.css';
import { pictureSvg, type PictureLane } from './picture-svg.ts';
import { shownSetups, speedRange, type Shown } from './shown-setups.ts';
import type { CompareView } from './view.ts';

interface TakeAwayProps {
  job: Job;
  figures: JobFigures;
  view: CompareView;
}

/** What is seen, to be taken along: picture, curves, figures, table, link. */
export function TakeAway({ job, figures, view }: TakeAwayProps) {
  const print = usePrint();
  const shown = shownSetups(job, figures, view);
  const name = `${view.test.letter}-on-${view.against.letter}`.replaceAll(/[^\w.-]+/g, '-');
  const { comparison } = figures;
  const picture = () => pictureOf(job, figures, view, shown);
  return (
    <Menu position="bottom-end" shadow="md">
      <Menu.Target>
        <button className={classes.export}>take it along</button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => void savePng(`${name}.png`, picture())}>Picture, PNG</Menu.Item>
        <Menu.Item onClick={() => save(`${name}.svg`, 'image/svg+xml', picture())}>Picture, SVG</Menu.Item>
        <Menu.Item onClick={() => save(`${name}.csv`, 'text/csv', curvesCsv(columnsOf(figures, view, shown)))}>
          Curves and gain, CSV
        </Menu.Item>
        <Menu.Item
          disabled={!comparison}
          onClick={() => save(`${name}.json`, 'application/json', jsonOf(figures, view))}
        >
          Figures, JSON
        </Menu.Item>
        <Menu.Item
          disabled={!comparison}
          onClick={() => copy(tableText(), 'The table is copied; paste it into a spreadsheet.')}
        >
          Copy the table
        </Menu.Item>
        <Menu.Item onClick={print}>Print</Menu.Item>
        <Menu.Item onClick={() => copy(window.location.href, 'The link is copied: it shows these figures again.')}>
          Copy the link
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

function save(name: string, type: string, content: string | Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

async function savePng(name: string, svg: string): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  // Twice the size, for print.
  [canvas.width, canvas.height] = [2 * image.width, 2 * image.height];
  const pen = canvas.getContext('2d')!;
  pen.scale(2, 2);
  pen.drawImage(image, 0, 0);
  canvas.toBlob((blob) => blob && save(name, 'image/png', blob), 'image/png');
}

function copy(text: string, done: string): void {
  void navigator.clipboard.writeText(text).then(
    () => notifications.show({ message: done, autoClose: 2500 }),
    () => notifications.show({ message: 'The browser does not let anything be copied.', color: 'red' }),
  );
}

/** The gain table as the page shows it, with tabs between cells. */
function tableText(): string {
  const rows = [...document.querySelectorAll('[data-testid="gain-table"] tr')];
  return rows.map((row) => [...row.children].map((cell) => cell.textContent.trim()).join('\t')).join('\n');
}

function columnsOf({ comparison }: JobFigures, view: CompareView, shown: readonly Shown[]): CurveColumn[] {
  const kw = (values: Float64Array) => values.map((value) => convert(value, 'kW', view.powerUnit));
  const nm = (values: Float64Array) => values.map((value) => convert(value, 'N·m', view.torqueUnit));
  const curves = shown.flatMap(({ name, figures }): CurveColumn[] => [
    {
      name: `power ${name}`,
      unit: view.powerUnit,
      engineSpeedRpm: figures.power.engineSpeedRpm,
      values: kw(figures.power.values),
    },
    {
      name: `torque ${name}`,
      unit: view.torqueUnit,
      engineSpeedRpm: figures.torque.engineSpeedRpm,
      values: nm(figures.torque.values),
    },
  ]);
  if (!comparison) return curves;
  const { engineSpeedRpm, gain, gainHalfWidth } = comparison.power;
  const pair = `${view.test.letter} less ${view.against.letter}`;
  return [
    ...curves,
    { name: `gain ${pair}`, unit: view.powerUnit, engineSpeedRpm, values: kw(gain) },
    {
      name: `gain ${pair}, 95 % half width at all speeds`,
      unit: view.powerUnit,
      engineSpeedRpm,
      values: kw(gainHalfWidth),
    },
  ];
}

function jsonOf(figures: JobFigures, view: CompareView): string {
  const { power, torque, sentence, unlike, withheld } = figures.comparison!;
  const made = { standard: view.standard, share: view.share, crankEstimate: figures.estimate ?? null, smoothing: figures.spanRpm, test: view.test.letter, baseline: view.against.letter }; // prettier-ignore
  return JSON.stringify({ ...comparisonToJson(power, torque, sentence, unlike, withheld), ...made }, null, 2);
}

function pictureOf(job: Job, figures: JobFigures, view: CompareView, shown: readonly Shown[]): string {
  const style = getComputedStyle(document.documentElement);
  const colour = (value: string) => {
    const variable = /^var\((--[\w-]+)\)$/.exec(value)?.[1];
    return variable ? style.getPropertyValue(variable).trim() : value;
  };
  const lane = (quantity: 'power' | 'torque', title: string, scale: (value: number) => number): PictureLane => ({
    title,
    lines: shown.map(({ name, colour: own, isTest, figures: one }) => ({
      name,
      colour: colour(own),
      width: isTest ? 2.6 : 2,
      rpm: one[quantity].engineSpeedRpm,
      values: one[quantity].values.map(scale),
    })),
  });
  const kw = (value: number) => convert(value, 'kW', view.powerUnit);
  const { comparison } = figures;
  const lanes = [
    lane('power', `Power, ${view.powerUnit}${scaleNote(figures)}`, kw),
    lane('torque', `Torque, ${view.torqueUnit}, engine-referred${scaleNote(figures)}`, (value) =>
      convert(value, 'N·m', view.torqueUnit),
    ),
  ];
  if (comparison) {
    const { engineSpeedRpm, gain, gainHalfWidth } = comparison.power;
    const bound = (sign: number) => ({
      name: '',
      colour: colour('var(--soft)'),
      width: 1,
      rpm: engineSpeedRpm,
      values: gain.map((value, index) => kw(value + sign * gainHalfWidth[index]!)),
    });
    const judged = !Number.isNaN(gainHalfWidth[0]!);
    lanes.push({
      title: `Gain, ${view.powerUnit}, ${view.test.letter} less ${view.against.letter}${judged ? '; thin: 95 % band, all speeds at once' : ''}`,
      zero: true,
      lines: [
        ...(judged ? [bound(1), bound(-1)] : []),
        { name: 'gain', colour: colour(shown.at(-1)!.colour), width: 2.4, rpm: engineSpeedRpm, values: gain.map(kw) },
      ],
    });
  }
  const standard =
    view.standard === 'none'
      ? 'uncorrected'
      : `corrected to ${standards[view.standard].name}${view.share < 1 ? `, ${Math.round(view.share * 100)} % share` : ''}`;
  return pictureSvg({
    title: `${job.vehicle}: ${view.test.letter}, ${view.test.change}`,
    sentence: comparison?.sentence.map((phrase) => phrase.text).join('') ?? figures.noComparison ?? '',
    made: `${figures.estimate === undefined ? 'At the wheels' : `Estimated for the crank (${figures.estimate})`}, ${standard}; smoothing ${formatSpan(figures.spanRpm)}; means of counted runs. ${new Date(job.runs.at(-1)?.startedAt ?? Date.now()).toLocaleDateString('en-GB', { dateStyle: 'long' })}.`,
    range: view.zoom ?? speedRange(shown.map(({ figures: one }) => one.power.engineSpeedRpm)),
    lanes,
    colours: {
      ground: colour('var(--ground)'),
      ink: colour('var(--ink)'),
      soft: colour('var(--soft)'),
      rule: colour('var(--rule-soft)'),
    },
  });
}
