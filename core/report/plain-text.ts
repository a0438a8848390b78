import type { WrittenBlock, WrittenCell, WrittenReport } from './written-report.ts';

/** Columns of a table stand apart by so much. */
const gap = '  ';

/** A report as a plain e-mail: no picture, tables by spaces, every figure as it stands in the report. */
export function plainReport({ head, blocks }: WrittenReport): string {
  const parts = blocks.map(plainBlock).filter((text) => text !== '');
  return `${[`${head.about}\n${head.when}`, ...parts].join('\n\n')}\n`.replaceAll('\u00a0', ' ');
}

function plainBlock({ title, note, content }: WrittenBlock): string {
  const lines = [...(note ? [note] : []), ...linesOf(content)];
  return lines.length === 0 ? '' : [...(title === '' ? [] : [title.toUpperCase()]), ...lines].join('\n');
}

function linesOf(content: WrittenBlock['content']): string[] {
  switch (content.is) {
    case 'answer':
      return [content.headline, ...(content.lead === '' ? [] : ['', content.lead])];
    case 'figures':
      return content.figures.map(
        ({ name, sign, figure, unit, note }) => `${name}: ${sign ? `${sign} ` : ''}${figure} ${unit} (${note})`,
      );
    case 'lanes':
      return [];
    case 'table':
      return [...tableLines([content.head, ...content.rows]), ...(content.note === undefined ? [] : [content.note])];
    case 'list':
      return content.items.map(({ severity, text }) => `${severity === 'note' ? '-' : '!'} ${text}`);
    case 'text':
      return [...content.paragraphs];
    case 'photos':
      return content.photos.map(({ caption }) => `- ${caption || 'without a caption'}`);
  }
}

function tableLines(rows: readonly (readonly WrittenCell[])[]): string[] {
  const widths = (rows[0] ?? []).map((_, at) => Math.max(...rows.map((row) => row[at]?.text.length ?? 0)));
  return rows.map((row) =>
    row
      .map(({ text, right }, at) => (right ? text.padStart(widths[at]!) : text.padEnd(widths[at]!)))
      .join(gap)
      .trimEnd(),
  );
}
