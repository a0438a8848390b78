import type { LaneAxisId } from '../../../../core/scene/lane-axis.ts';
import type { AxisRange } from '../../../../core/scene/scene.ts';

/** Runs and setups laid beside the one that is looked at. */
export const mostBeside = 2;

/** What the address asks of the Logs stage, so that a link shows the same again. */
export interface LogsView {
  /** The run's label. */
  run: string | undefined;
  /** Labels of runs (B2), or letters of setups (B) for the mean of their runs; undefined for the baseline's last run. */
  beside: readonly string[] | undefined;
  axis: LaneAxisId;
  /** On the axis. */
  at: number | undefined;
  zoom: AxisRange | undefined;
  /** The lanes of a run, or the fuelling errors of its setup. */
  show: 'lanes' | 'fuelling';
  /** The fuelling cell that is looked into. */
  cell: number | undefined;
  /** Opened lanes; undefined for those that tell most. */
  lanes: readonly string[] | undefined;
}

const axes: Readonly<Record<string, LaneAxisId>> = { speed: 'engine-speed', road: 'road-speed', time: 'time' };
const written: Record<LaneAxisId, string | undefined> = {
  'engine-speed': undefined,
  'road-speed': 'road',
  time: 'time',
};

export function logsViewIn(address: URLSearchParams): LogsView {
  const zoom = /^(-?[\d.]+)_(-?[\d.]+)$/.exec(address.get('zoom') ?? '');
  const at = address.get('at');
  return {
    run: address.get('run') ?? undefined,
    beside: address
      .get('beside')
      ?.split('.')
      .filter((name) => name !== '' && name !== 'none')
      .slice(0, mostBeside),
    axis: axes[address.get('by') ?? ''] ?? 'engine-speed',
    at: at !== null && Number.isFinite(Number(at)) ? Number(at) : undefined,
    zoom: zoom && Number(zoom[1]) < Number(zoom[2]) ? [Number(zoom[1]), Number(zoom[2])] : undefined,
    show: address.get('show') === 'fuelling' ? 'fuelling' : 'lanes',
    cell: /^\d{1,4}$/.test(address.get('cell') ?? '') ? Number(address.get('cell')) : undefined,
    lanes: address.get('lanes')?.split('.').filter(Boolean),
  };
}

/** The address with changes written into it; what is undefined in them is taken out. */
export function addressWith(address: URLSearchParams, changes: Partial<LogsView>): URLSearchParams {
  const next = new URLSearchParams(address);
  const put = (name: string, value: string | undefined) =>
    value === undefined ? next.delete(name) : next.set(name, value);
  if ('run' in changes) put('run', changes.run);
  if ('beside' in changes) put('beside', changes.beside && (changes.beside.join('.') || 'none'));
  if ('axis' in changes) put('by', changes.axis && written[changes.axis]);
  if ('at' in changes) put('at', changes.at === undefined ? undefined : String(short(changes.at)));
  if ('zoom' in changes) put('zoom', changes.zoom?.map(short).join('_'));
  if ('show' in changes) put('show', changes.show === 'fuelling' ? 'fuelling' : undefined);
  if ('cell' in changes) put('cell', changes.cell?.toString());
  if ('lanes' in changes) put('lanes', changes.lanes?.join('.'));
  return next;
}

const short = (value: number) => Number(value.toFixed(2));
