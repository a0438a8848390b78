import { Button, Menu, NativeSelect, Progress } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { papers, reportPdf } from '../../../contract/report/report.ts';
import { curvesCsv } from '../../../core/exchange/results/curves-csv.ts';
import { plainReport } from '../../../core/report/plain-text.ts';
import type { ReportSource } from '../../../core/report/reported-job.ts';
import { reportColumns } from '../../../core/report/make-report.ts';
import { reportFileName, type WrittenReport } from '../../../core/report/written-report.ts';
import { onPaper } from '../../../core/scene/paper-colours.ts';
import { pictureSvg } from '../../../core/scene/scene-svg.ts';
import type { Units } from '../../../core/units/told-units.ts';
import { ExportJob } from '../../bundles/export-job.tsx';
import { ExportRemote } from '../../bundles/export-remote.tsx';
import { usePrint } from '../../ui/printing.ts';
import { askInLines, type Doing } from '../../state/in-lines.ts';
import { usePreferences } from '../../state/preferences.ts';
import { tellProblem } from '../../state/queries.ts';
import { copyText, saveFile, savePng } from '../../ui/save-file.ts';
import classes from './report-stage.module.css';

interface ReportFileProps {
  /** As it stands on the sheet. */
  report: WrittenReport;
  /** Where the server makes the PDF, and what it is told beside the paper. */
  pdf: { path: string; view: object };
  /** Resolves once every change of the draft is stored: the PDF is made of what is stored. */
  stored: () => Promise<unknown>;
  /** Curves behind it; of a kept version there are none. */
  curves?: { source: ReportSource; units: Units; job: Job } | undefined;
}

const named: Record<(typeof papers)[number], string> = { A4: 'A4', LETTER: 'Letter' };

/** The report as a file: PDF, paper, pictures, curves, e-mail. */
export function ReportFile({ report, pdf, stored, curves }: ReportFileProps) {
  const paper = usePreferences((state) => state.paper);
  const print = usePrint();
  const [exporting, setExporting] = useState<'job' | 'tuner'>();
  const lanes = report.blocks.find(({ content }) => content.is === 'lanes')?.content;
  const picture = lanes?.is === 'lanes' ? lanes.wide : undefined;
  const svg = () => (picture ? pictureSvg(picture, onPaper) : '');
  const name = reportFileName(report);
  return (
    <section className={classes.files}>
      <Pdf key={pdf.path} pdf={pdf} paper={paper} stored={stored} />
      <div className={classes.beside}>
        <NativeSelect
          aria-label="Paper"
          data={papers.map((value) => ({ value, label: named[value] }))}
          value={paper}
          onChange={(event) =>
            usePreferences.setState({ paper: papers.find((one) => one === event.currentTarget.value) ?? 'A4' })
          }
        />
        <Button variant="default" onClick={print}>
          Print
        </Button>
        <Menu position="bottom-end" shadow="md">
          <Menu.Target>
            <Button variant="default">Export</Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item disabled={!picture} onClick={() => void savePng(`${name}.png`, svg())}>
              Curves, PNG
            </Menu.Item>
            <Menu.Item disabled={!picture} onClick={() => saveFile(`${name}.svg`, 'image/svg+xml', svg())}>
              Curves, SVG
            </Menu.Item>
            {curves && (
              <Menu.Item
                onClick={() =>
                  saveFile(`${name}.csv`, 'text/csv', curvesCsv(reportColumns(curves.source, curves.units)))
                }
              >
                Curves and gain, CSV
              </Menu.Item>
            )}
            {curves && <Menu.Item onClick={() => setExporting('tuner')}>For a remote tuner (.zip)</Menu.Item>}
            {curves && <Menu.Item onClick={() => setExporting('job')}>Job file (.zip)</Menu.Item>}
            <Menu.Item
              onClick={() => copyText(plainReport(report), 'The report is copied as text: paste it into an e-mail.')}
            >
              Copy as e-mail text
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      {curves && <ExportJob job={curves.job} opened={exporting === 'job'} onClose={() => setExporting(undefined)} />}
      {curves && (
        <ExportRemote
          job={curves.job}
          view={{ standard: curves.source.view.standard, units: curves.units }}
          opened={exporting === 'tuner'}
          onClose={() => setExporting(undefined)}
        />
      )}
    </section>
  );
}

const words: Record<Doing['doing'], string> = {
  reading: 'Reading the runs',
  comparing: 'Making the figures',
  writing: 'Writing the pages',
  storing: 'Storing it',
};
/** Where each part begins and ends on the bar, %. */
const parts: Record<Doing['doing'], [number, number]> = {
  reading: [0, 50],
  comparing: [50, 70],
  writing: [70, 100],
  storing: [95, 100],
};

interface PdfProps extends Pick<ReportFileProps, 'pdf' | 'stored'> {
  paper: (typeof papers)[number];
}

/** Makes the PDF on the server, and says how far it is. */
function Pdf({ pdf, paper, stored }: PdfProps) {
  const [doing, setDoing] = useState<Doing>();
  const cancel = useRef<AbortController>(undefined);
  // Leaving the stage cancels the PDF.
  useEffect(() => () => cancel.current?.abort(), []);
  const make = async () => {
    const control = new AbortController();
    cancel.current = control;
    setDoing({ doing: 'reading', done: 0 });
    try {
      await stored();
      const { name, base64 } = await askInLines(
        reportPdf,
        pdf.path,
        { ...pdf.view, paper },
        { onDoing: setDoing, signal: control.signal },
      );
      const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
      saveFile(name, 'application/pdf', new Blob([bytes], { type: 'application/pdf' }));
    } catch (error) {
      if ((error as Error).name !== 'AbortError') tellProblem(error as Error);
    } finally {
      setDoing(undefined);
    }
  };
  if (!doing)
    return (
      <Button size="md" fullWidth onClick={() => void make()}>
        Save as PDF
      </Button>
    );
  const [from, to] = parts[doing.doing];
  return (
    <div className={classes.making}>
      <div>
        <span role="status">{words[doing.doing]}</span>
        <Progress value={from + doing.done * (to - from)} aria-label="How far the PDF is" mt={6} />
      </div>
      <Button variant="default" onClick={() => cancel.current?.abort()}>
        Cancel
      </Button>
    </div>
  );
}
