import { Image, Path, Svg, Text, View } from '@react-pdf/renderer';
import type { Severity } from '../../core/checks/check.ts';
import type { WrittenBlock, WrittenCell, WrittenContent } from '../../core/report/written-report.ts';
import { onPaper } from '../../core/scene/paper-colours.ts';
import { PdfLanes } from './pdf-lanes.tsx';
import type { Look } from './pdf-looks.ts';

/** A picture of a kind that the library can draw. */
export interface Photo {
  data: Uint8Array;
  format: 'jpg' | 'png';
}

interface BlockProps extends Omit<ContentProps, 'content' | 'quiet'> {
  block: WrittenBlock;
}

/** A block with its title, as it stands on a page. */
export function PdfBlock({ block: { title, note, content, id }, look, width, photos }: BlockProps) {
  const quiet = id === 'made' || id === 'conditions' || id === 'file';
  const heading = title !== '' && (
    <Text style={look.title} minPresenceAhead={48}>
      {title}
    </Text>
  );
  const body = (
    <View style={look.block}>
      {note !== undefined && <Text style={look.paragraph}>{note}</Text>}
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
  photos: ReadonlyMap<number, Photo>;
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
  shown: ReadonlyMap<number, Photo>;
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
