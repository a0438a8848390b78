/** One measured figure, and what it must not exceed where there is such a bound. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  budget?: number;
}

/** A figure as it was taken. */
export interface Taken extends Figure {
  subject: string;
  /** Share of processor time that others on this machine had meanwhile; undefined where the system does not say. */
  byOthers: number | undefined;
}

/** A figure in a line. @param width of its name, characters */
export function line({ name, value, unit, budget, byOthers }: Taken, width = 0): string {
  const bound = budget === undefined ? '' : `  (at most ${budget}${value > budget ? ': OVER' : ''})`;
  const others = byOthers === undefined ? '' : `  others had ${(100 * byOthers).toFixed(0)} %`;
  return `${name.padEnd(width)}  ${value.toFixed(value < 10 ? 3 : 1).padStart(9)} ${unit}${bound}${others}`;
}

/** The figures as a table for people. */
export function table(figures: readonly Taken[]): string {
  const width = Math.max(...figures.map(({ name }) => name.length));
  return figures.map((figure) => line(figure, width)).join('\n');
}
