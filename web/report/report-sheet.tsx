import { useElementSize } from '@mantine/hooks';
import type { WrittenContent, WrittenLanes, WrittenReport } from '../../core/report/written-report.ts';
import { shapesSvg } from '../../core/scene/scene-svg.ts';
import { SeverityMark } from '../ui/severity.tsx';
import { WrittenTable } from '../ui/written-table.tsx';
import classes from './report-sheet.module.css';

interface ReportSheetProps {
  report: WrittenReport;
  /** Where a photo lies, by its number; left out: where whoever may see the job finds it. */
  photoAt?: (id: number) => string;
}

const photoOfJob = (id: number) => `/api/photos/${id}/content`;

/** The report as its reader has it in hand. */
export function ReportSheet({ report: { head, blocks }, photoAt = photoOfJob }: ReportSheetProps) {
  return (
    <article className={classes.sheet} data-sheet>
      <header className={classes.head}>
        <span>{head.about}</span>
        <span>{head.when}</span>
      </header>
      {blocks.map(({ id, title, note, content }) => (
        <section key={id} className={classes.block} data-block={id}>
          {title && <h2>{title}</h2>}
          {note && <p className={classes.note}>{note}</p>}
          <BlockContent content={content} photoAt={photoAt} />
        </section>
      ))}
    </article>
  );
}

function BlockContent({ content, photoAt }: { content: WrittenContent; photoAt: (id: number) => string }) {
  switch (content.is) {
    case 'answer':
      return (
        <>
          <h1 className={classes.answer} data-testid="report-answer">
            {content.headline}
          </h1>
          <p className={classes.lead}>{content.lead}</p>
        </>
      );
    case 'figures':
      return <LargeFigures figures={content.figures} />;
    case 'lanes':
      return <Lanes lanes={content} />;
    case 'table':
      return <WrittenTable table={content} />;
    case 'list':
      return (
        <ul className={classes.list}>
          {content.items.map(({ severity, text }) => (
            <li key={text} data-severity={severity}>
              <SeverityMark severity={severity} /> <span>{text}</span>
            </li>
          ))}
        </ul>
      );
    case 'photos':
      return (
        <div className={classes.photos}>
          {content.photos.map(({ id, caption }) => (
            <figure key={id}>
              <img src={photoAt(id)} alt={caption || 'photo without a caption'} />
              {caption && <figcaption>{caption}</figcaption>}
            </figure>
          ))}
        </div>
      );
    case 'text':
      return content.paragraphs.map((text) => <p key={text}>{text}</p>);
  }
}

function LargeFigures({ figures }: { figures: Extract<WrittenContent, { is: 'figures' }>['figures'] }) {
  return (
    <dl className={classes.figures}>
      {figures.map(({ name, sign, figure, unit, note }) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>
            <b className="number">
              {sign && <i>{sign} </i>}
              {figure}
            </b>{' '}
            <span>{unit}</span>
          </dd>
          <dd className={classes.noteOf}>{note}</dd>
        </div>
      ))}
    </dl>
  );
}

/** A phone's width is below this, px. */
const phonePx = 500;

function Lanes({ lanes: { wide, narrow, says } }: { lanes: WrittenLanes }) {
  const { ref, width } = useElementSize();
  const picture = width > 0 && width < phonePx ? narrow : wide;
  if (!picture) return <p>{says}</p>;
  return (
    <div ref={ref}>
      <svg
        className={classes.lanes}
        viewBox={`0 0 ${picture.width} ${picture.height}`}
        role="img"
        aria-label={says}
        dangerouslySetInnerHTML={{ __html: shapesSvg(picture.shapes, (colour) => colour) }}
      />
    </div>
  );
}
