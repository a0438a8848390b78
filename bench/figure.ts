/** One measured figure, and what it must not exceed where there is such a bound. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  budget?: number;
}

/** The figures as a table for people. */
export function table(figures: readonly Figure[]): string {
  const width = Math.max(...figures.map((figure) => figure.name.length));
  return figures
    .map(({ name, value, unit, budget }) => {
      const bound = budget === undefined ? '' : `  (at most ${budget}${value > budget ? ': OVER' : ''})`;
      return `${name.padEnd(width)}  ${value.toFixed(value < 10 ? 3 : 1).padStart(9)} ${unit}${bound}`;
    })
    .join('\n');
}
