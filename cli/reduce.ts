import { readFileSync } from 'node:fs';
import type { z } from 'zod';
import type { CurveJson } from '../contract/curve.ts';
import { airFile, dynoFile, problemIn } from '../contract/files.ts';
import { standardIds, type StandardId } from '../core/air/correction.ts';
import { curveToJson } from '../core/exchange/curve-json.ts';
import { readRecordingCsv } from '../core/exchange/read-csv.ts';
import { curveOf, preparedSweep, resolvedSpan, usualGridRpm } from '../core/reduction/reduce.ts';
import { readSpan, type Span } from '../core/smoothing/span.ts';
import { Refusal } from '../core/refusal.ts';

interface ReduceOptions {
  dyno?: string | undefined;
  air?: string | undefined;
  ratio?: string | undefined;
  standard?: string | undefined;
  smoothing?: string | undefined;
  grid?: string | undefined;
}

/**
 * `suvok reduce`: one recording to one curve.
 * @throws Refusal with a sentence for every kind of bad input
 */
export function reduceCommand(files: string[], options: ReduceOptions): CurveJson {
  const [file, ...more] = files;
  if (!file) throw new Refusal('Name the recording: suvok reduce RUN.csv --dyno DYNO.json');
  if (more.length > 0) throw new Refusal(`One recording at a time: "${more[0]}" is one too many.`);
  if (!options.dyno)
    throw new Refusal('Give the dyno with --dyno DYNO.json; power cannot be made without its inertia.');
  const dyno = jsonFile(options.dyno, dynoFile);
  const air = options.air === undefined ? undefined : jsonFile(options.air, airFile);
  const smoothing = smoothingOf(options.smoothing);
  const ratio = options.ratio === undefined ? undefined : positive('ratio', options.ratio);
  const gridRpm = options.grid === undefined ? usualGridRpm : positive('grid', options.grid);
  const { recording } = readRecordingCsv(textFile(file));
  const sweep = preparedSweep(recording, dyno, ratio);
  const spanRpm = resolvedSpan(smoothing, [sweep]);
  const curve = curveOf(sweep, air, { standard: standardNamed(options.standard), share: 1, spanRpm, gridRpm });
  return curveToJson(curve, smoothing === 'auto');
}

function textFile(path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'it is a folder'
          : `it cannot be read (${code})`;
    throw new Refusal(`${path}: ${why}.`);
  }
}

function jsonFile<T extends z.ZodType>(path: string, schema: T): z.infer<T> {
  let content: unknown;
  try {
    content = JSON.parse(textFile(path).replace(/^\uFEFF/, ''));
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(`${path} is not JSON.`);
  }
  const parsed = schema.safeParse(content);
  if (!parsed.success) throw new Refusal(`${path}: ${problemIn(parsed.error)}.`);
  return parsed.data;
}

function positive(name: string, text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value) || value <= 0) {
    throw new Refusal(`--${name} takes a number above 0, not "${text}".`);
  }
  return value;
}

function smoothingOf(word: string | undefined): Span | 'auto' {
  if (word === undefined || word === 'auto') return 'auto';
  const span = readSpan(word);
  if (span === undefined) {
    throw new Refusal(`--smoothing takes a span in rpm (0 for none) or auto, not "${word}".`);
  }
  return span;
}

function standardNamed(id: string | undefined): StandardId {
  if (id === undefined) return 'sae-j1349';
  const known = standardIds.find((standard) => standard === id);
  if (!known) throw new Refusal(`There is no standard "${id}"; known are ${standardIds.join(', ')}.`);
  return known;
}
