/**
 * A smoothing span that may vary along the range: knots at equal steps of
 * engine speed, the span between them by straight lines, constant beyond.
 */
export interface SpanAlong {
  fromRpm: number;
  toRpm: number;
  /** At least two, rpm. */
  spansRpm: readonly number[];
}

/** One span for all of the range, rpm (0: no smoothing), or one that varies. */
export type Span = number | SpanAlong;

/** The span at an engine speed, rpm. */
export function spanAt(span: Span, rpm: number): number {
  if (typeof span === 'number') return span;
  const { fromRpm, toRpm, spansRpm } = span;
  const last = spansRpm.length - 1;
  const place = Math.min(last, Math.max(0, ((rpm - fromRpm) / (toRpm - fromRpm)) * last));
  const left = Math.min(last - 1, Math.floor(place));
  return spansRpm[left]! + (place - left) * (spansRpm[left + 1]! - spansRpm[left]!);
}

/** Least and greatest span. */
export function spanLimits(span: Span): readonly [number, number] {
  return typeof span === 'number' ? [span, span] : [Math.min(...span.spansRpm), Math.max(...span.spansRpm)];
}

/** As one word for an address or a file: `320`, or `2075-6800-320.240.180`. */
export function writeSpan(span: Span): string {
  return typeof span === 'number' ? String(span) : `${span.fromRpm}-${span.toRpm}-${span.spansRpm.join('.')}`;
}

const varying = /^(\d+)-(\d+)-(\d+(?:\.\d+){1,40})$/;

/** @returns undefined where the word is no span */
export function readSpan(word: string): Span | undefined {
  if (/^\d+$/.test(word)) return Number(word);
  const found = varying.exec(word);
  if (!found) return undefined;
  const [fromRpm, toRpm] = [Number(found[1]), Number(found[2])];
  return toRpm > fromRpm ? { fromRpm, toRpm, spansRpm: found[3]!.split('.').map(Number) } : undefined;
}
