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

/** Names are this long at most, nearly all of them: figures stand below each other. */
const nameWidth = 84;

/** A figure in a line, for people. */
export function line({ name, value, unit, budget, byOthers }: Taken): string {
  const bound = budget === undefined ? '' : `  (at most ${budget}${value > budget ? ': OVER' : ''})`;
  const others = byOthers === undefined ? '' : `  others had ${(100 * byOthers).toFixed(0)} %`;
  return `${name.padEnd(nameWidth)}  ${value.toFixed(value < 10 ? 3 : 1).padStart(9)} ${unit}${bound}${others}`;
}
