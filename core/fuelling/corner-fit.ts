import { sampleAt } from '../numerics/sample-at.ts';
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { studentT } from '../statistics/student-t.ts';
import type { FuellingAxes } from './axes.ts';

/** The mean of readings that followed each other in one place of the table. */
export interface Block {
  /** Fuelling error, as a share. */
  error: number;
  /** Mean shares of the cells. */
  cells: readonly number[];
  shares: readonly number[];
  samples: number;
  seconds: number;
  /** Blocks of one visit follow each other. */
  visit: number;
}

/** What a cell's value is known to be. */
export interface FittedCell {
  /** As a share; NaN where nothing was read near. */
  error: number;
  /** Of the 95 % interval. */
  halfWidth: number;
  /** Standard deviation of a reading of one block's length about the fit. */
  spread: number;
  /** How many independent blocks the interval is worth. */
  effectiveCount: number;
  /** Readings, by their share in the cell, and the time they took. */
  samples: number;
  seconds: number;
}

// Set by bench/fuelling.ts: error and bias of the cells over drawn drives.
/** Neighbours of a table are held together: the bend between three of them is as large as this, as a share, and a value itself as that. */
const usualBend = 0.06;
const usualValue = 0.3;
/** A cell's own spread counts beside that of all as if that had so many blocks. */
const sharedBlocks = 6;
/** A block of this length counts whole, s. */
export const blockS = 1;
/** Neighbouring blocks are related by at most this much. */
const mostRelated = 0.8;
/** Few blocks tell little of how they go together: this counts beside what they show, as if so many pairs had shown it. */
const usualRelated = 0.2;
const usualPairs = 40;

/**
 * Values at a table's corners by regularised least squares: readings are
 * blocks' means dealt among their corners, a reading's variance is that of the
 * residuals, larger where neighbouring blocks go together, and the bend of the
 * table from cell to cell has a wide normal prior, so that a corner with
 * readings on one side only is told as uncertain and not as anything.
 * Posterior of a linear model: Gelman et al., Bayesian Data Analysis, 3rd ed. (2013), §14.8.
 *
 * @param smooth false: every cell by itself
 */
export function fitCorners(axes: FuellingAxes, blocks: readonly Block[], smooth: boolean): FittedCell[] {
  const columns = axes.across.breakpoints.length;
  const rows = axes.down?.breakpoints.length ?? 1;
  const count = columns * rows;
  const samples = new Float64Array(count);
  const seconds = new Float64Array(count);
  for (const block of blocks) {
    block.cells.forEach((cell, place) => {
      samples[cell]! += block.samples * block.shares[place]!;
      seconds[cell]! += block.seconds * block.shares[place]!;
    });
  }
  const nothing = (cell: number): FittedCell => ({
    error: NaN,
    halfWidth: Infinity,
    spread: NaN,
    effectiveCount: 0,
    samples: sampleAt(samples, cell),
    seconds: sampleAt(seconds, cell),
  });
  if (blocks.length === 0) return Array.from({ length: count }, (_, cell) => nothing(cell));
  let variance = usualBend ** 2 / 100;
  const believed = prior(columns, rows, smooth);
  let fit = solved(blocks, count, believed, variance);
  // The prior is weighed against the readings' own variance, which the first fit finds.
  for (let round = 0; round < 2; round++) {
    variance = Math.max(1e-9, residualVariance(blocks, fit));
    fit = solved(blocks, count, believed, variance);
  }
  const { inflation, free } = related(blocks, fit);
  const spreads = spreadsOf(blocks, fit, count, variance);
  return Array.from({ length: count }, (_, cell) => {
    if (!(sampleAt(seconds, cell) > 0)) return nothing(cell);
    const own = sampleAt(spreads, cell);
    const varianceOfCell = fit.inverse.get(cell, cell) * own * inflation;
    return {
      error: fit.values[cell]!,
      halfWidth: studentT(0.95, Math.max(2, free)) * Math.sqrt(varianceOfCell),
      spread: Math.sqrt(own),
      effectiveCount: own / varianceOfCell,
      samples: sampleAt(samples, cell),
      seconds: sampleAt(seconds, cell),
    };
  });
}

interface Solved {
  values: number[];
  /** (X′WX + prior)⁻¹: times the variance of a whole block it is the values' covariance. */
  inverse: Matrix;
}

const weightOf = ({ seconds }: Block): number => Math.min(1, seconds / blockS);

function solved(blocks: readonly Block[], count: number, priorPrecision: Matrix, variance: number): Solved {
  const normal = Matrix.mul(priorPrecision, variance);
  const side = Matrix.zeros(count, 1);
  for (const block of blocks) {
    const weight = weightOf(block);
    block.cells.forEach((a, i) => {
      side.set(a, 0, side.get(a, 0) + weight * block.shares[i]! * block.error);
      for (let j = 0; j <= i; j++) {
        const b = block.cells[j]!;
        const sum = normal.get(a, b) + weight * block.shares[i]! * block.shares[j]!;
        normal.set(a, b, sum);
        normal.set(b, a, sum);
      }
    });
  }
  const inverse = new CholeskyDecomposition(normal).solve(Matrix.eye(count));
  return { values: inverse.mmul(side).to1DArray(), inverse };
}

/** Precision of the prior: bends along both axes, and the values themselves. */
function prior(columns: number, rows: number, smooth: boolean): Matrix {
  const precision = Matrix.eye(columns * rows).mul(1 / usualValue ** 2);
  if (!smooth) return precision;
  const bend = (a: number, b: number, c: number) => {
    const row = [
      [a, 1],
      [b, -2],
      [c, 1],
    ] as const;
    for (const [i, x] of row)
      for (const [j, y] of row) precision.set(i, j, precision.get(i, j) + (x * y) / usualBend ** 2);
  };
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const cell = row * columns + column;
      if (column > 0 && column + 1 < columns) bend(cell - 1, cell, cell + 1);
      if (row > 0 && row + 1 < rows) bend(cell - columns, cell, cell + columns);
    }
  }
  return precision;
}

const residualOf = (block: Block, { values }: Solved): number =>
  block.cells.reduce((left, cell, place) => left - block.shares[place]! * values[cell]!, block.error);

/** How much of a block's own reading its fitted value is. */
function leverage(block: Block, { inverse }: Solved): number {
  let sum = 0;
  block.cells.forEach((a, i) =>
    block.cells.forEach((b, j) => (sum += block.shares[i]! * block.shares[j]! * inverse.get(a, b))),
  );
  return weightOf(block) * sum;
}

/** Variance of a whole block about the fit. */
function residualVariance(blocks: readonly Block[], fit: Solved): number {
  let sum = 0;
  let free = 0;
  for (const block of blocks) {
    sum += weightOf(block) * residualOf(block, fit) ** 2;
    free += 1 - Math.min(1, leverage(block, fit));
  }
  return sum / Math.max(1, free);
}

/**
 * By how much blocks of one visit that go together widen every interval, and
 * how many are free. A fit makes neighbours look less alike than they are: with
 * a share h of each block's reading in its fit and a correlation ρ, residuals
 * show c = (ρ − h′)/(1 − h′) with h′ = h·(1 + 2ρ(1 − h)), which is solved for ρ.
 */
function related(blocks: readonly Block[], fit: Solved): { inflation: number; free: number } {
  let together = 0;
  let alone = 0;
  let taken = 0;
  let pairs = 0;
  blocks.forEach((block, index) => {
    const residual = residualOf(block, fit);
    taken += Math.min(1, leverage(block, fit));
    const before = blocks[index - 1];
    if (before?.visit !== block.visit) return;
    const earlier = residualOf(before, fit);
    together += residual * earlier;
    alone += (residual ** 2 + earlier ** 2) / 2;
    pairs++;
  });
  const h = taken / blocks.length;
  const c = alone > 0 ? together / alone : 0;
  const shown = (c + (1 - c) * h) / Math.max(0.1, 1 - 2 * h * (1 - h) * (1 - c));
  const moderated = (pairs * shown + usualPairs * usualRelated) / (pairs + usualPairs);
  const correlation = Math.max(0, Math.min(mostRelated, moderated));
  const lost = h * (1 + 2 * correlation * (1 - h));
  const inflation = ((1 + correlation) / (1 - correlation)) * ((1 - h) / Math.max(0.1, 1 - lost));
  return { inflation, free: blocks.length / inflation - taken };
}

/** Each cell's own variance of a block, moderated by that of all. */
function spreadsOf(blocks: readonly Block[], fit: Solved, count: number, variance: number): Float64Array {
  const sums = new Float64Array(count).fill(sharedBlocks * variance);
  const weights = new Float64Array(count).fill(sharedBlocks);
  for (const block of blocks) {
    const square = (weightOf(block) * residualOf(block, fit) ** 2) / Math.max(0.1, 1 - leverage(block, fit));
    block.cells.forEach((cell, place) => {
      sums[cell]! += block.shares[place]! * square;
      weights[cell]! += block.shares[place]!;
    });
  }
  return sums.map((sum, cell) => sum / sampleAt(weights, cell));
}
