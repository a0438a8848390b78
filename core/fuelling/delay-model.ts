import { sampleAt } from '../numerics/sample-at.ts';
import { solveInPlace } from '../numerics/small-system.ts';
import { sourceOf, usualDelay } from './gas-way.ts';
import type { MixtureSeries } from './mixture.ts';

// Set by bench/fuelling.ts: the delay's error over drawn drives.
/** Rows that follow one another are related by at most this much. */
const mostRelated = 0.95;
/** Less of a column than this is none. */
const tail = 1e-6;
/** Standard deviation of probes' lags about the usual one, s. */
const usualLagSd = 0.025;

/** λ against the columns of a table, for any delay. */
export class DelayModel {
  private readonly misfits = new Map<string, number>();
  private readonly read: Float64Array;
  /** How much of a row's residual the one before it tells. */
  private relation = 0;
  /** First sample of each row, and the one after its last. */
  private readonly starts: Int32Array;
  private readonly ends: Int32Array;
  /** Only what was driven through. */
  private readonly columns: readonly Float64Array[];

  constructor(
    private readonly time: Float64Array,
    columns: readonly Float64Array[],
    private readonly mixture: MixtureSeries,
    rows: readonly (readonly [number, number])[],
  ) {
    this.starts = Int32Array.from(rows, ([first]) => first);
    this.ends = Int32Array.from(rows, ([, end]) => end);
    this.columns = columns.filter((column) => column.some((value) => value !== 0));
    this.read = this.averaged(mixture.lambda);
  }

  misfit(totalS: number, lagS: number): number {
    if (lagS > totalS || lagS <= 0) return Infinity;
    const key = `${totalS.toFixed(4)} ${lagS.toFixed(3)}`;
    const known = this.misfits.get(key);
    if (known !== undefined) return known;
    const residuals = this.residuals(totalS, lagS);
    // Transport and lag can hardly be told apart from the data alone: a lag far from the usual one needs more evidence.
    const unusual = ((lagS - usualDelay.lagS) / usualLagSd) ** 2;
    const found = inner(residuals, residuals) * Math.exp(unusual / residuals.length);
    this.misfits.set(key, found);
    return found;
  }

  /** Takes the part out of every row that the row before it predicts. */
  whiten(totalS: number, lagS: number): void {
    const residuals = this.residuals(totalS, lagS);
    let next = 0;
    for (let place = 1; place < residuals.length; place++)
      next += sampleAt(residuals, place) * sampleAt(residuals, place - 1);
    this.relation = Math.max(0, Math.min(mostRelated, next / inner(residuals, residuals)));
    this.misfits.clear();
  }

  private residuals(totalS: number, lagS: number): Float64Array {
    const at = this.late(totalS - lagS, lagS).map((column) => this.whitened(column));
    const read = this.whitened(this.read);
    const terms = at.length;
    const normal = new Float64Array(terms * terms);
    const found = new Float64Array(terms);
    for (let i = 0; i < terms; i++) {
      // The engine is in few cells at a time: most of a column is next to nothing.
      const rows = toldRows(at[i]!);
      for (let j = i; j < terms; j++) normal[i * terms + j] = normal[j * terms + i] = innerAt(rows, at[i]!, at[j]!);
      found[i] = innerAt(rows, at[i]!, read);
      // A cell that was hardly driven through has next to no share; a trace of a ridge keeps the system whole.
      normal[i * terms + i] = sampleAt(normal, i * terms + i) * (1 + 1e-6) + 1e-3;
    }
    solveInPlace(normal, terms, terms, found, 0);
    for (let term = 0; term < terms; term++) {
      const column = at[term]!;
      const share = sampleAt(found, term);
      for (let place = 0; place < read.length; place++) read[place]! -= share * sampleAt(column, place);
    }
    return read;
  }

  private whitened(values: Float64Array): Float64Array {
    const { relation, starts, ends } = this;
    const left = values.slice();
    if (relation === 0) return left;
    for (let row = 1; row < left.length; row++)
      if (starts[row] === ends[row - 1]) left[row] = sampleAt(values, row) - relation * sampleAt(values, row - 1);
    return left;
  }

  private averaged(values: Float64Array): Float64Array {
    const { starts, ends } = this;
    const means = new Float64Array(starts.length);
    for (let row = 0; row < means.length; row++) {
      let sum = 0;
      for (let index = starts[row]!; index < ends[row]!; index++) sum += sampleAt(values, index);
      means[row] = sum / (ends[row]! - starts[row]!);
    }
    return means;
  }

  /** The columns as the probe would read them, averaged over the rows. */
  private late(transportS: number, lagS: number): Float64Array[] {
    const { time, columns } = this;
    const source = sourceOf(time, this.mixture.flow, transportS);
    const count = time.length;
    const low = new Int32Array(count);
    const share = new Float64Array(count);
    const follows = new Float64Array(count);
    for (let index = 0; index < count; index++) {
      const place = sampleAt(source, index) || 0;
      low[index] = Math.min(count - 2, Math.floor(place));
      share[index] = place - low[index]!;
      follows[index] = index > 0 ? 1 - Math.exp(-(sampleAt(time, index) - sampleAt(time, index - 1)) / lagS) : 1;
    }
    const out = new Float64Array(count);
    return columns.map((column) => {
      let value = 0;
      for (let index = 0; index < count; index++) {
        const at = low[index]!;
        const here = sampleAt(column, at);
        const now = here + sampleAt(share, index) * (sampleAt(column, at + 1) - here);
        value += sampleAt(follows, index) * (now - value);
        // Numbers near zero that are not normal floating-point ones would make each step a hundred times slower.
        if (value < tail && value > -tail) value = 0;
        out[index] = value;
      }
      return this.averaged(out);
    });
  }
}

/** Rows in which a column is more than the tail of a filter. */
function toldRows(column: Float64Array): Int32Array {
  const rows = new Int32Array(column.length);
  let count = 0;
  for (let row = 0; row < column.length; row++) if (Math.abs(sampleAt(column, row)) > tail) rows[count++] = row;
  return rows.subarray(0, count);
}

function innerAt(rows: Int32Array, a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < rows.length; at++) sum += sampleAt(a, rows[at]!) * sampleAt(b, rows[at]!);
  return sum;
}

function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += sampleAt(a, index) * sampleAt(b, index);
  return sum;
}
