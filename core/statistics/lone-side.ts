// Set by bench/coverage.ts: a lone run of a setup that repeats half or twice as well as the others, averaged.
/** How much the spreads of one car's setups differ from one another: as variances of so many degrees of freedom do. */
const betweenSetups = 6;

/** Degrees of freedom of a spread, and those of them that the job's own repeats told. */
export interface SpreadKnown {
  df: number;
  told: number;
}

/**
 * Degrees of freedom of a difference of means whose spread other setups' repeats told for a side of a single run: that
 * run tells nothing of its own setup's spread, which is a draw of its own. Variances of the spread (2/ν) add up:
 * 1/ν + Σ wᵢ²/6 over the lone sides, w a side's share of the difference's variance. A spread that is known from
 * before alone is one of setups already.
 * Source: after Satterthwaite, Biometrics Bulletin 2 (1946) 110.
 *
 * @param spread how well it is known, and how much of that these runs told
 * @param sides runs of either side, or of the only one where a mean stands alone
 */
export function withLoneSides({ df, told }: SpreadKnown, sides: readonly number[]): number {
  if (!(told > 0)) return df;
  const perRun = sides.reduce((sum, runs) => sum + 1 / runs, 0);
  const own = sides.reduce((sum, runs) => (runs === 1 ? sum + (1 / perRun) ** 2 / betweenSetups : sum), 0);
  return df > 0 && own > 0 ? 1 / (1 / df + own) : df;
}
