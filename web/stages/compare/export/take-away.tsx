import { phrasesText } from '../../../../core/wording/gain-sentence.ts';
import { Menu } from '@mantine/core';
import { useState } from 'react';
import type { Job } from '../../../../contract/job/records.ts';
import { standards } from '../../../../core/air/correction.ts';
import { comparisonToJson } from '../../../../core/exchange/results/comparison-json.ts';
import { curveColumns } from '../../../../core/exchange/results/curve-columns.ts';
import { curvesCsv } from '../../../../core/exchange/results/curves-csv.ts';
import { usePrint } from '../../../ui/printing.ts';
import { formatSpan } from '../../../../core/wording/figures.ts';
import { ShareDialog } from '../../../links/share-dialog.tsx';
import { copyText, saveFile, savePng } from '../../../ui/save-file.ts';
import button from '../../../ui/text-button.module.css';
import { gainTableContent, gainTableText } from '../findings/gain-table-content.ts';
import { sceneAt } from '../../../../core/scene/compare-scene.ts';
import type { SceneContent } from '../../../../core/scene/scene.ts';
import { sceneSvg, type PictureWords } from '../../../../core/scene/scene-svg.ts';
import { shownSetups } from '../../../../core/scene/shown-setups.ts';
import type { ComparisonFigures } from '../../../../core/figures/pairs/comparison-figures.ts';
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
  const [sharing, setSharing] = useState(false);
  const name = `${view.test.letter}-on-${view.against.letter}`.replaceAll(/[^\w.-]+/g, '-');
  const { comparison } = figures;
  const picture = () =>
    scene ? sceneSvg(sceneAt(scene, view.zoom), pictureWords(job, figures, view), themeColour()) : '';
  return (
    <>
      <Menu position="bottom-end" shadow="md">
        <Menu.Target>
          <button className={button.act}>Export</button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item disabled={!scene} onClick={() => void savePng(`${name}.png`, picture())}>
            Picture, PNG
          </Menu.Item>
          <Menu.Item disabled={!scene} onClick={() => saveFile(`${name}.svg`, 'image/svg+xml', picture())}>
            Picture, SVG
          </Menu.Item>
          <Menu.Item
            onClick={() =>
              saveFile(
                `${name}.csv`,
                'text/csv',
                curvesCsv(
                  curveColumns(
                    figures,
                    shownSetups(job, figures, view),
                    `${view.test.letter} less ${view.against.letter}`,
                    view.units,
                  ),
                ),
              )
            }
          >
            Curves and gain, CSV
          </Menu.Item>
          <Menu.Item
            disabled={!comparison}
            onClick={() =>
              comparison && saveFile(`${name}.json`, 'application/json', jsonOf(comparison, figures, view))
            }
          >
            Figures, JSON
          </Menu.Item>
          <Menu.Item
            disabled={!comparison}
            onClick={() =>
              comparison &&
              copyText(
                gainTableText(gainTableContent(comparison, view, figures.estimate)),
                'The table is copied; paste it into a spreadsheet.',
              )
            }
          >
            Copy the table
          </Menu.Item>
          <Menu.Item onClick={print}>Print</Menu.Item>
          <Menu.Item
            onClick={() => copyText(window.location.href, 'The link is copied: it shows these figures again.')}
          >
            Copy the link
          </Menu.Item>
          <Menu.Item onClick={() => setSharing(true)}>Share, to read only …</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <ShareDialog
        job={job}
        view={{ standard: view.standard, units: view.units }}
        opened={sharing}
        onClose={() => setSharing(false)}
      />
    </>
  );
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
