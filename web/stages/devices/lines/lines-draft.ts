import { isDynoKind } from '../../../../contract/instruments/bench-link.ts';
import type { PlainInstrument } from '../../../../contract/instruments/plain-instrument.ts';
import { lineCells, likelyForm, type PlainColumn } from '../../../../core/exchange/recordings/plain-line.ts';
import { knownChannels, toChannelUnit, type KnownChannel } from '../../../../core/recording/channels.ts';

type Way = PlainInstrument['way'];
type Separator = PlainInstrument['form']['separator'];
type MachineFigure = 'inertiaKgM2' | 'radiusM' | 'aNm' | 'bNmPerRadS' | 'cNmPerRadS2' | 'loadCellLagS' | 'ratio';

/** What is being entered of an instrument that sends lines. */
export interface LinesDraft {
  device: string;
  kind: PlainInstrument['kind'];
  by: Way['by'];
  host: string;
  port: number | undefined;
  from: string;
  path: string;
  baud: number;
  greeting: string;
  begins: string;
  /** Undefined until somebody chose: what is likely is taken. */
  separator: Separator | undefined;
  decimalComma: boolean | undefined;
  columns: readonly PlainColumn[];
  machine: Partial<Record<MachineFigure, number>>;
}

export const emptyDraft: LinesDraft = {
  device: '',
  kind: 'loaded-roller',
  by: 'tcp client',
  host: '',
  port: undefined,
  from: '127.0.0.1',
  path: '',
  baud: 115_200,
  greeting: '',
  begins: '',
  separator: undefined,
  decimalComma: undefined,
  columns: [],
  machine: {},
};

/** An instrument that was entered before, to be changed. */
export function draftOf({ device, kind, way, form, greeting, dyno, engineToDrumRatio }: PlainInstrument): LinesDraft {
  return {
    ...emptyDraft,
    ...way,
    device,
    kind,
    greeting,
    ...form,
    machine: {
      ...(dyno && { inertiaKgM2: dyno.inertiaKgM2, ...dyno.parasitic }),
      ...(dyno?.radiusM === undefined ? {} : { radiusM: dyno.radiusM }),
      ...(dyno?.loadCellLagS === undefined ? {} : { loadCellLagS: dyno.loadCellLagS }),
      ...(engineToDrumRatio === null ? {} : { ratio: engineToDrumRatio }),
    },
  };
}

/** The way as far as it is entered; undefined while something is missing. */
export function wayOf({ by, host, port, from, path, baud }: LinesDraft): Way | undefined {
  if (by === 'serial') return path.trim() ? { by, path: path.trim(), baud } : undefined;
  if (port === undefined) return undefined;
  if (by === 'tcp client') return host.trim() ? { by, host: host.trim(), port } : undefined;
  return from.trim() ? { by, port, from: from.trim() } : undefined;
}

/** How lines are read: as chosen, or as is likely from those heard. */
export function formOf(
  { separator, decimalComma, begins, columns }: LinesDraft,
  heard: readonly string[],
): PlainInstrument['form'] {
  const likely = likelyForm(heard.filter((line) => line.startsWith(begins.trim())));
  const taken = separator ?? likely.separator;
  const width = Math.max(0, ...heard.map((line) => lineCells({ separator: taken, begins }, line)?.length ?? 0));
  const count = Math.max(width, columns.findLastIndex(({ is }) => is !== 'nothing') + 1);
  return {
    separator: taken,
    decimalComma: taken === ',' ? false : (decimalComma ?? likely.decimalComma),
    begins,
    columns: Array.from({ length: count }, (_, at) => columns[at] ?? { is: 'nothing' }),
  };
}

/** What is still to be entered, as a sentence; undefined when the instrument can be connected. */
export function missing(draft: LinesDraft, form: PlainInstrument['form']): string | undefined {
  if (!wayOf(draft)) return 'Say where its lines come from.';
  if (!form.columns.some(({ is }) => is === 'channel')) return 'Name at least one column.';
  const wrong = form.columns.find((column) => column.is === 'channel' && !unitFits(column.name, column.unit));
  if (wrong?.is === 'channel') return `The unit of ${wrong.name} is not one of its kind.`;
  if (draft.device.trim() === '') return 'Give it a name.';
  if (!isDynoKind(draft.kind)) return undefined;
  if (!draft.machine.inertiaKgM2) return 'A dyno needs the inertia of its drum or hub.';
  const pickup = form.columns.some((column) => column.is === 'channel' && column.name === 'engineSpeed');
  return pickup || draft.machine.ratio
    ? undefined
    : 'Without a column of engine speed the ratio of engine to drum speed is needed.';
}

/** Whether a unit can be one of a channel; any will do for a channel of one's own. */
export function unitFits(name: string, unit: string): boolean {
  return !Object.hasOwn(knownChannels, name) || toChannelUnit(name as KnownChannel, unit) !== undefined;
}

/** The instrument as it was entered; nothing of it may be missing. */
export function instrumentOf(draft: LinesDraft, way: Way, form: PlainInstrument['form']): PlainInstrument {
  const { device, kind, greeting, machine } = draft;
  const { inertiaKgM2 = 0, radiusM, aNm = 0, bNmPerRadS = 0, cNmPerRadS2 = 0, loadCellLagS, ratio } = machine;
  return {
    device: device.trim(),
    kind,
    way,
    form,
    greeting,
    dyno: !isDynoKind(kind)
      ? null
      : {
          kind,
          inertiaKgM2,
          ...(radiusM ? { radiusM } : {}),
          parasitic: { aNm, bNmPerRadS, cNmPerRadS2 },
          ...(loadCellLagS ? { loadCellLagS } : {}),
        },
    engineToDrumRatio: ratio ?? null,
  };
}
