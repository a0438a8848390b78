import { Document, Page, renderToBuffer, Text, View } from '@react-pdf/renderer';
import type { WrittenReport } from '../../core/report/written-report.ts';
import { registerFonts } from './pdf-fonts.ts';
import { PdfBlock, type Photo } from './pdf-block.tsx';
import { looks, margin } from './pdf-looks.ts';

export type Paper = 'A4' | 'LETTER';

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
/** What is tried beside the usual size of letters: below the last nobody reads it. */
const sizes = [0.93, 0.86, 0.8];

/**
 * A written report as PDF: vectors, its fonts within, page numbers. The
 * library writes no tags for reading aloud; title and language are set, and
 * the text stands in its order of reading.
 *
 * @returns the bytes, and how many pages they are
 */
export async function reportPdf(report: WrittenReport, wishes: PdfWishes): Promise<{ pdf: Buffer; pages: number }> {
  registerFonts();
  let best = await rendered(report, wishes, 1);
  // Slightly smaller letters spare a page that would hold a few lines; one page is worth smaller ones.
  for (const size of wishes.onePage ? sizes : sizes.slice(0, 1)) {
    if (best.pages === 1) break;
    const made = await rendered(report, wishes, size);
    if (made.pages < best.pages) best = made;
  }
  return best;
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
          <Text style={{ flexShrink: 1 }}>{head.about}</Text>
          <Text style={{ flexShrink: 0 }}>{head.when}</Text>
        </View>
        {blocks.map((block) => (
          <PdfBlock key={block.id} block={block} look={look} width={width} photos={photos} />
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
