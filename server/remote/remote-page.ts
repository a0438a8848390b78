import { readFileSync } from 'node:fs';
import type { CurveColumn } from '../../core/exchange/results/curves-csv.ts';
import type { WrittenBlock, WrittenCell, WrittenReport } from '../../core/report/written-report.ts';

/** A line of a lane: places along the axis, and values; null where there is none. */
interface PageLine {
  name: string;
  x: readonly number[];
  y: readonly (number | null)[];
  /** Half of its 95 % interval at each place, where it has one. */
  halfWidth?: readonly (number | null)[];
}

/** Lanes over one axis, as the page's own script (page.js) draws them. */
export interface PageView {
  name: string;
  axis: string;
  /** Digits after the point where they are told; left out, four digits that count. */
  lanes: readonly { title: string; unit: string; digits?: number; lines: readonly PageLine[] }[];
}

const script = readFileSync(new URL('./page.js', import.meta.url), 'utf8');
const style = readFileSync(new URL('./page.css', import.meta.url), 'utf8');

/** Five digits are more than a lane shows, and a third of the page. */
const short = (value: number) => (Number.isFinite(value) ? Number(value.toPrecision(5)) : null);

/** The curves as lanes: power, torque, and the gain with its uncertainty. */
export function curvesView(columns: readonly CurveColumn[]): PageView {
  const width = columns.find(({ name }) => name.includes('half width'));
  const lineOf = ({ name, engineSpeedRpm, values }: CurveColumn, kind: string): PageLine => ({
    name: kind === 'gain' ? 'gain' : name.slice(kind.length + 1),
    x: Array.from(engineSpeedRpm, short).map(Number),
    y: Array.from(values, short),
    ...(kind === 'gain' && width ? { halfWidth: Array.from(width.values, short) } : {}),
  });
  const lanes = (['power', 'torque', 'gain'] as const).flatMap((kind) => {
    const of = columns.filter((column) => column !== width && column.name.startsWith(`${kind} `));
    const title = kind[0]!.toUpperCase() + kind.slice(1);
    return of.length === 0
      ? []
      : [{ title, unit: of[0]?.unit ?? '', digits: 1, lines: of.map((column) => lineOf(column, kind)) }];
  });
  return { name: 'Curves', axis: 'rpm', lanes };
}

/** What the gain is, and what its grey band means. */
function gainNote(columns: readonly CurveColumn[]): string {
  const gain = columns.find(({ name }) => name.startsWith('gain '));
  return gain
    ? `<p class="soft">Gain: ${escaped(gain.name.slice(5))}; grey and ±: 95 % uncertainty, all speeds at once.</p>`
    : '';
}

/** The page asks for nothing, wherever it lies; its own words run. */
export const remotePageCsp = "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'";

const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * A page that opens without Suvok: what the report says, lanes with a crosshair, and the curves as a table. It needs no
 * network and holds everything in itself.
 * @param report without whom it is for
 */
export function remotePage(report: WrittenReport, views: readonly PageView[], columns: readonly CurveColumn[]): string {
  // Nothing in the data may end the element that holds it.
  const data = JSON.stringify({ views }).replaceAll('<', '\\u003c');
  const blocks = report.blocks.filter(({ content }) => content.is !== 'lanes' && content.is !== 'photos');
  const shown = views.filter(({ lanes }) => lanes.length > 0);
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${remotePageCsp}">
<title>${escaped(report.head.about)}</title>
<style>${style}</style>
</head>
<body>
<header><p>${escaped(report.head.about)} · ${escaped(report.head.when)}</p></header>
${blocks.slice(0, 1).map(blockHtml).join('')}
${shown.length === 0 ? '' : `<label${shown.length === 1 ? ' hidden' : ''}>Lanes of <select id="view"></select></label><div id="lanes"></div><p id="at" aria-live="polite"></p>${gainNote(columns)}`}
${blocks.slice(1).map(blockHtml).join('')}
${curvesTable(columns)}
${shown.length === 0 ? '' : `<script type="application/json" id="data">${data}</script><script>${script}</script>`}
</body>
</html>
`;
}

function blockHtml({ title, note, content }: WrittenBlock): string {
  const head = `${title === '' ? '' : `<h2>${escaped(title)}</h2>`}${note ? `<p>${escaped(note)}</p>` : ''}`;
  switch (content.is) {
    case 'answer':
      return `<h1>${escaped(content.headline)}</h1><p>${escaped(content.lead)}</p>`;
    case 'figures':
      return `${head}<ul>${content.figures.map(({ name, sign, figure, unit, note }) => `<li>${escaped(`${name}: ${sign ? `${sign} ` : ''}${figure} ${unit} (${note})`)}</li>`).join('')}</ul>`;
    case 'table':
      return `${head}<div class="scroll"><table><thead>${rowHtml(content.head, 'th')}</thead><tbody>${content.rows.map((row) => rowHtml(row, 'td')).join('')}</tbody></table></div>${content.note === undefined ? '' : `<p class="soft">${escaped(content.note)}</p>`}`;
    case 'list':
      return `${head}<ul>${content.items.map(({ severity, text }) => `<li>${severity === 'note' ? '' : '▲ '}${escaped(text)}</li>`).join('')}</ul>`;
    case 'text':
      return head + content.paragraphs.map((text) => `<p>${escaped(text)}</p>`).join('');
    case 'lanes':
    case 'photos':
      return '';
  }
}

function rowHtml(cells: readonly WrittenCell[], element: 'th' | 'td'): string {
  const cell = ({ text, tone, right }: WrittenCell) => {
    const looks = [tone, right && 'right'].filter(Boolean).join(' ');
    return `<${element}${looks ? ` class="${looks}"` : ''}>${escaped(text)}</${element}>`;
  };
  return `<tr>${cells.map(cell).join('')}</tr>`;
}

/** A row every so many rpm: the whole of it is in curves.csv. */
const everyRpm = 250;

function curvesTable(columns: readonly CurveColumn[]): string {
  if (columns.length === 0) return '';
  const speeds = columns.flatMap(({ engineSpeedRpm }) => Array.from(engineSpeedRpm));
  const [low, high] = [speeds.reduce((a, b) => Math.min(a, b)), speeds.reduce((a, b) => Math.max(a, b))];
  const rows: WrittenCell[][] = [];
  for (let rpm = Math.ceil(low / everyRpm) * everyRpm; rpm <= high; rpm += everyRpm)
    rows.push([
      { text: String(rpm), right: true },
      ...columns.map((column) => ({ text: valueAt(column, rpm), right: true as const })),
    ]);
  const head = [
    { text: 'rpm', right: true as const },
    ...columns.map(({ name, unit }) => ({ text: `${name}, ${unit}`, right: true as const })),
  ];
  return `<h2>Curves every ${everyRpm} rpm</h2><div class="scroll"><table><thead>${rowHtml(head, 'th')}</thead><tbody>${rows.map((row) => rowHtml(row, 'td')).join('')}</tbody></table></div>`;
}

/** The value of a curve nearest to a speed; nothing beyond its ends. */
function valueAt({ engineSpeedRpm, values }: CurveColumn, rpm: number): string {
  let nearest = 0;
  for (let index = 1; index < engineSpeedRpm.length; index++)
    if (Math.abs(engineSpeedRpm[index]! - rpm) < Math.abs(engineSpeedRpm[nearest]! - rpm)) nearest = index;
  const isThere = Math.abs((engineSpeedRpm[nearest] ?? Infinity) - rpm) <= everyRpm / 5;
  return isThere && Number.isFinite(values[nearest]) ? (values[nearest] ?? 0).toFixed(1).replace('-', '−') : '';
}
