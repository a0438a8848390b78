import Papa from 'papaparse';
import { safeHeading } from '../tables/safe-heading.ts';

/** A named column of values over engine speed, in the unit that it is written in. */
export interface CurveColumn {
  name: string;
  unit: string;
  engineSpeedRpm: ArrayLike<number>;
  values: ArrayLike<number>;
}

/**
 * Curves on one grid as CSV: `name [unit]` a column, engine speed first; a
 * cell is empty where its curve has no value.
 */
export function curvesCsv(columns: readonly CurveColumn[]): string {
  const speeds = new Set<number>();
  const maps = columns.map(({ engineSpeedRpm, values }) => {
    const map = new Map<number, number>();
    for (let index = 0; index < engineSpeedRpm.length; index++) {
      speeds.add(engineSpeedRpm[index]!);
      map.set(engineSpeedRpm[index]!, values[index]!);
    }
    return map;
  });
  const fields = ['engineSpeed [rpm]', ...columns.map(({ name, unit }) => `${name} [${unit}]`)];
  const data = [...speeds].sort((a, b) => a - b).map((rpm) => [rpm, ...maps.map((map) => cell(map.get(rpm)))]);
  return Papa.unparse({ fields: fields.map(safeHeading), data }, { newline: '\r\n' }) + '\r\n';
}

function cell(value: number | undefined): number | '' {
  return value === undefined || Number.isNaN(value) ? '' : Number(value.toFixed(4));
}
