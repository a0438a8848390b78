import { phrasesText } from '../../../../core/wording/gain-sentence.ts';
import { Menu } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import type { Job } from '../../../../contract/records.ts';
import { standards } from '../../../../core/air/correction.ts';
import { comparisonToJson } from '../../../../core/exchange/comparison-json.ts';
import { curvesCsv, type CurveColumn } from '../../../../core/exchange/curves-csv.ts';
import { convert } from '../../../../core/units/units.ts';
import { usePrint } from '../../../app/printing.ts';
import { formatSpan } from '../../../../core/wording/figures.ts';
import button from '../../../ui/text-button.module.css';
import { gainTableContent, gainTableText } from '../findings/gain-table-content.ts';
import { sceneAt } from '../../../../core/scene/compare-scene.ts';
import type { SceneContent } from '../../../../core/scene/scene.ts';
import { sceneSvg, type PictureWords } from '../../../../core/scene/scene-svg.ts';
import { shownSetups, type Shown } from '../../../../core/scene/shown-setups.ts';
import type { ComparisonFigures } from '../../../../core/figures/comparison-figures.ts';
import type { JobFigures } from '../../../../core/figures/job-figures.ts';
import type { CompareView } from '../view/view-address.ts';

interface TakeAwayProps {
  job: Job;
  figures: JobFigures;
  /** The lanes, where there are any. */
  scene: SceneContent | undefined;
  view: CompareView;
}

/** What is seen, to be taken along: picture, curves, figures, table, link. */
export function TakeAway({ job, figures, scene, view }: TakeAwayProps) {
  const print = usePrint();
  const name = `${view.test.letter}-on-${view.against.letter}`.replaceAll(/[^\w.-]+/g, '-');
  const { comparison } = figures;
  const picture = () =>
    scene ? sceneSvg(sceneAt(scene, view.zoom), pictureWords(job, figures, view), themeColour()) : '';
  return (
    <Menu position="bottom-end" shadow="md">
      <Menu.Target>
        <button className={button.act}>Export</button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item disabled={!scene} onClick={() => void savePng(`${name}.png`, picture())}>
          Picture, PNG
        </Menu.Item>
        <Menu.Item disabled={!scene} onClick={() => save(`${name}.svg`, 'image/svg+xml', picture())}>
          Picture, SVG
        </Menu.Item>
        <Menu.Item
          onClick={() =>
            save(`${name}.csv`, 'text/csv', curvesCsv(columnsOf(figures, view, shownSetups(job, figures, view))))
          }
        >
          Curves and gain, CSV
        </Menu.Item>
        <Menu.Item
          disabled={!comparison}
          onClick={() => comparison && save(`${name}.json`, 'application/json', jsonOf(comparison, figures, view))}
        >
          Figures, JSON
        </Menu.Item>
        <Menu.Item
          disabled={!comparison}
          onClick={() =>
            comparison &&
            copy(
              gainTableText(gainTableContent(comparison.rows, view, figures.estimate)),
              'The table is copied; paste it into a spreadsheet.',
            )
          }
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
  const pen = canvas.getContext('2d');
  pen?.scale(2, 2);
  pen?.drawImage(image, 0, 0);
  canvas.toBlob((blob) => blob && save(name, 'image/png', blob), 'image/png');
}

function copy(text: string, done: string): void {
  void navigator.clipboard.writeText(text).then(
    () => notifications.show({ message: done, autoClose: 2500 }),
    () => notifications.show({ message: 'The browser does not let anything be copied.', color: 'red' }),
  );
}

function columnsOf({ comparison }: JobFigures, view: CompareView, shown: readonly Shown[]): CurveColumn[] {
  const kw = (values: Float64Array) => values.map((value) => convert(value, 'kW', view.units.power));
  const nm = (values: Float64Array) => values.map((value) => convert(value, 'N·m', view.units.torque));
  const curves = shown.flatMap(({ name, figures }): CurveColumn[] => [
    {
      name: `power ${name}`,
      unit: view.units.power,
      engineSpeedRpm: figures.power.engineSpeedRpm,
      values: kw(figures.power.values),
    },
    {
      name: `torque ${name}`,
      unit: view.units.torque,
      engineSpeedRpm: figures.torque.engineSpeedRpm,
      values: nm(figures.torque.values),
    },
  ]);
  if (!comparison) return curves;
  const { engineSpeedRpm, gain, gainHalfWidth } = comparison.power;
  const pair = `${view.test.letter} less ${view.against.letter}`;
  return [
    ...curves,
    { name: `gain ${pair}`, unit: view.units.power, engineSpeedRpm, values: kw(gain) },
    {
      name: `gain ${pair}, 95 % half width at all speeds`,
      unit: view.units.power,
      engineSpeedRpm,
      values: kw(gainHalfWidth),
    },
  ];
}

function jsonOf(comparison: ComparisonFigures, figures: JobFigures, view: CompareView): string {
  const made = { standard: view.standard, share: view.share, auto: view.smoothing === 'auto' };
  return JSON.stringify(comparisonToJson({ ...figures, comparison }, made), null, 2);
}

/** Colours of the theme that the page is shown in. */
function themeColour(): (css: string) => string {
  const style = getComputedStyle(document.documentElement);
  return (css) => {
    const variable = /^var\((--[\w-]+)\)$/.exec(css)?.[1];
    return variable ? style.getPropertyValue(variable).trim() : css;
  };
}

function pictureWords(job: Job, figures: JobFigures, view: CompareView): PictureWords {
  const { comparison } = figures;
  const standard =
    view.standard === 'none'
      ? 'uncorrected'
      : `corrected to ${standards[view.standard].name}${view.share < 1 ? `, ${Math.round(view.share * 100)} % share` : ''}`;
  return {
    title: `${job.vehicle}: ${view.test.letter}, ${view.test.change}`,
    sentence: comparison ? phrasesText(comparison.sentence, view.units) : (figures.noComparison ?? ''),
    made: `${figures.estimate === undefined ? 'At the wheels' : `Estimated for the crank (${figures.estimate})`}, ${standard}; smoothing ${formatSpan(figures.spanRpm)}; means of counted runs. ${new Date(job.runs.at(-1)?.startedAt ?? Date.now()).toLocaleDateString('en-GB', { dateStyle: 'long' })}.`,
  };
}
