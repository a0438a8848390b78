import { Document, Image, Page, Path, renderToBuffer, StyleSheet, Svg, Text, View } from '@react-pdf/renderer';
import type { Severity } from '../../core/checks/check.ts';
import { onPaper, paperColours } from '../../core/scene/paper-colours.ts';
import type { WrittenBlock, WrittenCell, WrittenContent, WrittenReport } from '../../core/report/written-report.ts';
import { letters, registerFonts } from './pdf-fonts.ts';
import { PdfLanes } from './pdf-lanes.tsx';

export type Paper = 'A4' | 'LETTER';

/** A picture of a kind that the library can draw. */
export interface Photo {
  data: Uint8Array;
  format: 'jpg' | 'png';
}

export interface PdfWishes {
  paper: Paper;
  /** Everything on one page, in smaller letters where it must be. */
  onePage: boolean;
  /** What photos show, by their numbers; one that is not there is named by its caption alone. */
  photos: ReadonlyMap<number, Photo>;
  /** BCP 47, of the words. */
  language: string;
}

/** Points. */
const widths: Record<Paper, number> = { A4: 595.28, LETTER: 612 };
const margin = 46;
/** What a page in one is tried with, of the usual size of letters: below the last nobody reads it. */
const sizes = [1, 0.93, 0.86, 0.8];

/**
 * A written report as PDF: vectors, its fonts within, page numbers. The
 * library writes no tags for reading aloud; title and language are set, and
 * the text stands in its order of reading.
 *
 * @returns the bytes, and how many pages they are
 */
export async function reportPdf(report: WrittenReport, wishes: PdfWishes): Promise<{ pdf: Buffer; pages: number }> {
  registerFonts();
  if (!wishes.onePage) return rendered(report, wishes, 1);
  for (const size of sizes) {
    const made = await rendered(report, wishes, size);
    if (made.pages === 1 || size === sizes.at(-1)) return made;
  }
  throw new Error('no size was tried');
}

async function rendered(report: WrittenReport, { paper, language, photos }: PdfWishes, size: number) {
  let pages = 0;
  const count = (total: number) => (pages = total);
  const pdf = await renderToBuffer(
    <ReportDocument report={report} paper={paper} photos={photos} language={language} size={size} onPages={count} />,
  );
  return { pdf, pages };
}

interface ReportDocumentProps {
  report: WrittenReport;
  paper: Paper;
  photos: PdfWishes['photos'];
  language: string;
  size: number;
  onPages: (total: number) => void;
}

function ReportDocument({ report: { head, blocks }, paper, photos, language, size, onPages }: ReportDocumentProps) {
  const look = looks(size);
  const width = widths[paper] - 2 * margin;
  const answer = blocks.find(({ content }) => content.is === 'answer')?.content;
  return (
    <Document
      title={head.about}
      subject={answer?.is === 'answer' ? answer.headline : head.about}
      creator="Suvok"
      producer="Suvok"
      language={language}
    >
      <Page size={paper} style={look.page}>
        <View style={look.head} fixed>
          <Text>{head.about}</Text>
          <Text>{head.when}</Text>
        </View>
        {blocks.map((block) => (
          <Block key={block.id} block={block} look={look} width={width} photos={photos} />
        ))}
        <View style={look.foot} fixed>
          <Text
            render={({ pageNumber, totalPages }) => {
              onPages(totalPages);
              return `${pageNumber} / ${totalPages}`;
            }}
          />
        </View>
      </Page>
    </Document>
  );
}

type Look = ReturnType<typeof looks>;

interface BlockProps extends Omit<ContentProps, 'content' | 'quiet'> {
  block: WrittenBlock;
}

function Block({ block: { title, content, id }, look, width, photos }: BlockProps) {
  const quiet = id === 'made' || id === 'conditions' || id === 'file';
  const heading = title !== '' && (
    <Text style={look.title} minPresenceAhead={48}>
      {title}
    </Text>
  );
  const body = (
    <View style={look.block}>
      <Content content={content} look={look} width={width} quiet={quiet} photos={photos} />
    </View>
  );
  if (isShort(content))
    return (
      <View wrap={false}>
        {heading}
        {body}
      </View>
    );
  return (
    <>
      {heading}
      {body}
    </>
  );
}

/** What certainly takes less than half a page stays together, and its title with it. */
function isShort(content: WrittenContent): boolean {
  switch (content.is) {
    case 'table':
      return content.rows.length <= 9 && lettersIn(content.rows.flatMap((row) => row.map(({ text }) => text))) < 1200;
    case 'list':
      return content.items.length <= 12 && lettersIn(content.items.map(({ text }) => text)) < 1200;
    case 'text':
      return lettersIn(content.paragraphs) < 1800;
    case 'photos':
      return content.photos.length <= 3;
    case 'answer':
    case 'figures':
    case 'lanes':
      return false;
  }
}

const lettersIn = (texts: readonly string[]) => texts.reduce((sum, text) => sum + text.length, 0);

interface ContentProps {
  content: WrittenContent;
  look: Look;
  width: number;
  quiet: boolean;
  photos: PdfWishes['photos'];
}

function Content({ content, look, width, quiet, photos }: ContentProps) {
  switch (content.is) {
    case 'answer':
      return (
        <>
          <Text style={look.answer}>{content.headline}</Text>
          {content.lead !== '' && <Text style={look.lead}>{content.lead}</Text>}
        </>
      );
    case 'figures':
      return <LargeFigures figures={content.figures} look={look} />;
    case 'lanes':
      if (!content.wide) return <Text>{content.says}</Text>;
      return (
        <View wrap={false}>
          <PdfLanes picture={content.wide} width={width} />
        </View>
      );
    case 'table':
      return <Table table={content} look={look} />;
    case 'list':
      return content.items.map(({ severity, text }) => (
        <View key={text} style={look.item} wrap={text.length > 600}>
          <Mark severity={severity} />
          <Text style={severity === 'note' ? look.quietItem : look.itemText}>{text}</Text>
        </View>
      ));
    case 'photos':
      return <Photos photos={content.photos} shown={photos} look={look} />;
    case 'text':
      return content.paragraphs.map((text) => (
        <Text key={text} style={quiet ? look.quiet : look.paragraph}>
          {text}
        </Text>
      ));
  }
}

function LargeFigures({
  figures,
  look,
}: {
  figures: Extract<WrittenContent, { is: 'figures' }>['figures'];
  look: Look;
}) {
  return (
    <View style={look.figures} wrap={false}>
      {figures.map(({ name, sign, figure, unit, note }) => (
        <View key={name} style={look.figure}>
          <Text style={look.soft}>{name}</Text>
          <Text>
            {sign && <Text style={look.sign}>{sign} </Text>}
            <Text style={look.large}>{figure}</Text>
            <Text> {unit}</Text>
          </Text>
          <Text style={look.quiet}>{note}</Text>
        </View>
      ))}
    </View>
  );
}

interface PhotosProps {
  photos: Extract<WrittenContent, { is: 'photos' }>['photos'];
  shown: PdfWishes['photos'];
  look: Look;
}

function Photos({ photos, shown, look }: PhotosProps) {
  return (
    <View style={look.photos}>
      {photos.map(({ id, caption }) => {
        const photo = shown.get(id);
        return (
          <View key={id} style={look.photo} wrap={false}>
            {photo && <Image src={{ data: Buffer.from(photo.data), format: photo.format }} style={look.picture} />}
            <Text style={look.quiet}>{photo ? caption : `${caption || 'A photo'}: in the report on screen`}</Text>
          </View>
        );
      })}
    </View>
  );
}

/** Shares of the width by column: the first names its row and takes the most, one of words more than one of figures. */
function columnShares(head: readonly WrittenCell[], rows: readonly (readonly WrittenCell[])[]): number[] {
  const longest = head.map(({ text }, at) => Math.max(text.length, ...rows.map((row) => row[at]?.text.length ?? 0)));
  return longest.map((length, at) => Math.min(at === 0 ? 40 : 26, Math.max(9, length)));
}

function Table({ table: { head, rows, note }, look }: { table: Extract<WrittenContent, { is: 'table' }>; look: Look }) {
  const shares = columnShares(head, rows);
  const row = (cells: readonly WrittenCell[], isHead: boolean) =>
    cells.map(({ text, right, tone }, at) => (
      <Text
        key={at}
        style={[
          { flexGrow: shares[at]!, flexShrink: 1, flexBasis: 0, paddingRight: at === cells.length - 1 ? 0 : 8 },
          right ? { textAlign: 'right' } : {},
          isHead ? look.soft : {},
          tone ? look[tone] : {},
        ]}
      >
        {text}
      </Text>
    ));
  return (
    <View>
      <View style={look.tableHead} fixed>
        {row(head, true)}
      </View>
      {rows.map((cells, at) => (
        <View key={at} style={look.row} wrap={cells.some(({ text }) => text.length > 600)}>
          {row(cells, false)}
        </View>
      ))}
      {note !== undefined && <Text style={look.note}>{note}</Text>}
    </View>
  );
}

/** A severity's own shape, as on the screens. */
function Mark({ severity }: { severity: Severity }) {
  const shapes: Record<Severity, { d: string; fill: string }> = {
    note: { d: 'M5,7a2,2 0 1,0 4,0a2,2 0 1,0 -4,0', fill: 'var(--soft)' },
    mind: { d: 'M7 1.5 L13 12.5 L1 12.5 Z', fill: 'var(--ink)' },
    stop: { d: 'M7 0.5 L13.5 7 L7 13.5 L0.5 7 Z', fill: 'var(--stop)' },
  };
  const { d, fill } = shapes[severity];
  return (
    <Svg viewBox="0 0 14 14" style={{ width: 8, height: 8, marginTop: 2.5, marginRight: 7 }}>
      <Path d={d} fill={onPaper(fill)} />
    </Svg>
  );
}

/** @param size of letters, 1 for the usual one */
function looks(size: number) {
  const colour = (name: string) => paperColours[name]!;
  const pt = (usual: number) => usual * size;
  const quiet = { color: colour('--soft'), fontSize: pt(8.5), lineHeight: 1.4 };
  const strong = { fontWeight: 600 as const };
  return StyleSheet.create({
    page: {
      fontFamily: letters as never,
      fontSize: pt(9.5),
      color: colour('--ink'),
      paddingTop: 40,
      paddingBottom: 52,
      paddingHorizontal: margin,
    },
    head: { flexDirection: 'row', justifyContent: 'space-between', marginBottom: pt(12), ...quiet },
    // Text that is made anew for each page is lost where a height of lines reaches it.
    foot: { position: 'absolute', bottom: 26, right: margin, left: margin, textAlign: 'right', color: colour('--soft'), fontSize: pt(8.5) }, // prettier-ignore
    block: { marginBottom: pt(13), fontSize: pt(9.5), lineHeight: 1.4 },
    title: { ...strong, fontSize: pt(10), marginBottom: pt(3) },
    answer: { fontWeight: 700, fontSize: pt(20), lineHeight: 1.16, marginBottom: pt(7), maxWidth: 460 },
    lead: { fontSize: pt(10), maxWidth: 470 },
    figures: {
      flexDirection: 'row',
      gap: 18,
      paddingVertical: pt(8),
      borderTop: `1.5 solid ${colour('--ink')}`,
      borderBottom: `0.75 solid ${colour('--rule')}`,
    },
    figure: { flexGrow: 1, flexShrink: 1, flexBasis: 0 },
    large: { fontWeight: 700, fontSize: pt(21), lineHeight: 1.2 },
    sign: { fontSize: pt(14) },
    soft: { color: colour('--soft') },
    quiet,
    paragraph: { marginBottom: pt(3) },
    tableHead: { flexDirection: 'row', paddingBottom: pt(2.5) },
    row: { flexDirection: 'row', paddingVertical: pt(3), borderTop: `0.75 solid ${colour('--rule')}` },
    note: { ...quiet, marginTop: pt(3) },
    item: { flexDirection: 'row', marginBottom: pt(2.5) },
    itemText: { flexGrow: 1, flexShrink: 1, flexBasis: 0 },
    quietItem: { flexGrow: 1, flexShrink: 1, flexBasis: 0, color: colour('--soft') },
    photos: { flexDirection: 'row', flexWrap: 'wrap', gap: 14 },
    photo: { width: 155 },
    picture: { width: 155, height: 116, objectFit: 'contain', objectPosition: 'left', marginBottom: 3 },
    gain: { ...strong, color: colour('--gain') },
    loss: { ...strong, color: colour('--loss') },
    warning: { ...strong, color: colour('--stop') },
  });
}
