import type { EngineKind } from '../core/engine/engine-kind.ts';
import { existsSync, readFileSync } from 'node:fs';
import type { z } from 'zod';
import { airFile, dynoFile, problemIn, type AirFile, type DynoFile } from '../contract/files/machine-and-air.ts';
import { standardIds, type StandardId } from '../core/air/correction.ts';
import { readRecordingCsv } from '../core/exchange/recordings/read-csv.ts';
import type { UnusableRun } from '../core/figures/runs/figured-run.ts';
import type { RunRecord } from '../core/figures/request/job-record.ts';
import type { Recording } from '../core/recording/recording.ts';
import { Refusal } from '../core/refusal.ts';
import { readSpan, type Span } from '../core/smoothing/span.ts';

/** Reading of files and words; everything bad is a Refusal with a sentence. */
export function textFile(path: string): string {
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

export function jsonFile<T extends z.ZodType>(path: string, schema: T): z.infer<T> {
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

export function recordingFile(path: string): Recording {
  const text = textFile(path);
  try {
    return readRecordingCsv(text).recording;
  } catch (error) {
    if (error instanceof Refusal) throw new Refusal(`${path}: ${error.message}`);
    throw error;
  }
}

/** Puts the file's name before what is wrong with it. */
export function about<T>(path: string, make: () => T): T {
  try {
    return make();
  } catch (error) {
    if (error instanceof Refusal) throw new Refusal(`${path}: ${error.message}`);
    throw error;
  }
}

export function dynoOf(path: string | undefined): DynoFile {
  if (!path) throw new Refusal('Give the dyno with --dyno DYNO.json; power cannot be made without its inertia.');
  return jsonFile(path, dynoFile);
}

export function airOf(path: string | undefined): AirFile | undefined {
  return path === undefined ? undefined : jsonFile(path, airFile);
}

/** The air file beside a recording: `A1.air.json` beside `A1.csv`. */
export function airBeside(recording: string): AirFile | undefined {
  const beside = `${recording.replace(/\.csv$/i, '')}.air.json`;
  return existsSync(beside) ? jsonFile(beside, airFile) : undefined;
}

export function positive(name: string, text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value) || value <= 0) {
    throw new Refusal(`--${name} takes a number above 0, not "${text}".`);
  }
  return value;
}

export function shareOf(text: string | undefined): number {
  if (text === undefined) return 1;
  const percent = Number(text.replace(/%$/, ''));
  if (text.trim() === '' || !(percent >= 0 && percent <= 100)) {
    throw new Refusal(`--share takes a percentage from 0 to 100, not "${text}".`);
  }
  return percent / 100;
}

export function ignitionOf(word: string | undefined): EngineKind | undefined {
  if (word === undefined) return undefined;
  if (word === 'petrol' || word === 'spark') return 'spark';
  if (word === 'diesel' || word === 'compression') return 'compression';
  if (word === 'electric') return 'electric';
  throw new Refusal(`--engine takes petrol, diesel or electric, not "${word}".`);
}

export function smoothingOf(word: string | undefined): Span | 'auto' {
  if (word === undefined || word === 'auto') return 'auto';
  const span = readSpan(word);
  if (span === undefined) {
    throw new Refusal(`--smoothing takes a span in rpm (0 for none) or auto, not "${word}".`);
  }
  return span;
}

export function standardNamed(id: string | undefined): StandardId {
  if (id === undefined) return 'sae-j1349';
  const known = standardIds.find((standard) => standard === id);
  if (!known) throw new Refusal(`There is no standard "${id}"; known are ${standardIds.join(', ')}.`);
  return known;
}

/** @throws Refusal with what is wrong with the first run that no curve can be made of; a mistake of the program as it is */
export function refuseUnusable(unusable: readonly UnusableRun[], fileOf: (runId: number) => string): void {
  const [bad] = unusable;
  if (bad) throw bad.fault === 'program' ? bad.cause : new Refusal(`${fileOf(bad.id)}: ${bad.why}`);
}

/** A recording's file as a run: whatever nobody wrote down beside it is not known. */
export function runOfFile(
  id: number,
  label: string,
  { air, ...known }: { dyno: DynoFile; air: AirFile | undefined; engineToDrumRatio: number | null },
): Omit<RunRecord, 'setupId'> {
  return {
    id,
    label,
    kind: 'power',
    state: 'sealed',
    setAsideReason: null,
    startedAt: null,
    gear: null,
    airTakenAt: null,
    fuel: null,
    startTemperatures: {},
    air: air ?? null,
    ...known,
  };
}
