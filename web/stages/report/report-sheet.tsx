import { useElementSize } from '@mantine/hooks';
import { useMemo } from 'react';
import type { Block, Content, Report } from '../../../core/report/report.ts';
import { drafted, type Draft } from '../../../core/report/drafted.ts';
import { reportPicture, reportWidth } from '../../../core/report/report-scene.ts';
import type { ReportSource } from '../../../core/report/reported-job.ts';
import { shapesSvg } from '../../../core/scene/scene-svg.ts';
import { halfWidthText } from '../../../core/units/half-width.ts';
import { figureIn } from '../../../core/units/told-units.ts';
import { SeverityMark } from '../../ui/severity.tsx';
import { useOwnUnits } from '../../units/use-own-units.tsx';
import classes from './report-sheet.module.css';

interface ReportSheetProps {
  report: Report;
  draft: Draft;
  source: ReportSource;
}

/** The report as its reader has it in hand. */
export function ReportSheet({ report, draft, source }: ReportSheetProps) {
  const { car, plate, owner, date, job } = report.head;
  return (
    <article className={classes.sheet} data-sheet>
      <header className={classes.head}>
        <span>{[car, plate, owner && `for ${owner}`].filter(Boolean).join(' · ')}</span>
        <span>{[date, `job ${job}`].filter(Boolean).join(' · ')}</span>
      </header>
      {drafted(report, draft).map((block) => (
        <section key={block.id} className={classes.block} data-block={block.id}>
          {block.title && <h2>{block.title}</h2>}
          <BlockContent block={block} source={source} />
        </section>
      ))}
    </article>
  );
}

function BlockContent({ block: { content }, source }: { block: Block; source: ReportSource }) {
  const { write } = useOwnUnits();
  switch (content.is) {
    case 'answer':
      return (
        <>
          <h1 className={classes.answer} data-testid="report-answer">
            {write(content.headline)}
          </h1>
          <p className={classes.lead}>{content.lead.map((sentence) => write(sentence)).join(' ')}</p>
        </>
      );
    case 'figures':
      return <LargeFigures figures={content.figures} />;
    case 'lanes':
      return <Lanes source={source} />;
    case 'table':
      return <Table table={content} />;
    case 'list':
      return (
        <ul className={classes.list}>
          {content.items.map(({ severity = 'note', text }) => (
            <li key={write(text)} data-severity={severity}>
              <SeverityMark severity={severity} /> <span>{write(text)}</span>
            </li>
          ))}
        </ul>
      );
    case 'text':
      return content.paragraphs.map((sentence) => <p key={write(sentence)}>{write(sentence)}</p>);
  }
}

function LargeFigures({ figures }: { figures: Extract<Content, { is: 'figures' }>['figures'] }) {
  const { write, told } = useOwnUnits();
  const { unit, of } = told('kW');
  return (
    <dl className={classes.figures}>
      {figures.map(({ name, kw, halfWidthKw, sign, note }) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>
            <b className="number">
              {sign && <i>{sign} </i>}
              {figureIn(of(kw), unit, 1)}
            </b>{' '}
            <span>{unit}</span>
          </dd>
          <p>
            {halfWidthKw !== undefined && `± ${halfWidthText(figureIn(of(halfWidthKw), unit, 1))}, `}
            {write(note)}
          </p>
        </div>
      ))}
    </dl>
  );
}

function Lanes({ source: { job, figures } }: { source: ReportSource }) {
  const own = useOwnUnits();
  const { ref, width } = useElementSize();
  const room = width > 0 && width < 500 ? 380 : reportWidth;
  const picture = useMemo(() => reportPicture(job, figures, own, room), [job, figures, own, room]);
  if (!picture) return <p>No curve can be drawn of these runs.</p>;
  return (
    <div ref={ref}>
      <svg
        className={classes.lanes}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        role="img"
        aria-label="Power, torque and gain over engine speed, arrived and delivered."
        dangerouslySetInnerHTML={{ __html: shapesSvg(picture.shapes, (colour) => colour) }}
      />
    </div>
  );
}

function Table({ table: { head, rows, note } }: { table: Extract<Content, { is: 'table' }> }) {
  const { write } = useOwnUnits();
  return (
    <>
      <table className={classes.table}>
        <thead>
          <tr>
            {head.map(({ text, right }) => (
              <th key={write(text)} scope="col" className={right && classes.right}>
                {write(text)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.map(({ text }) => write(text)).join()}>
              {row.map(({ text, right, tone }, at) => {
                const look = [right && classes.right, tone].filter(Boolean).join(' ');
                return at === 0 ? (
                  <th key={at} scope="row" className={look}>
                    {write(text)}
                  </th>
                ) : (
                  <td key={at} className={look}>
                    {write(text)}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {note && <p className={classes.note}>{write(note)}</p>}
    </>
  );
}
