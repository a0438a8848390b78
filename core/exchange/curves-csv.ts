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
  const head = ['engineSpeed [rpm]', ...columns.map(({ name, unit }) => `${name} [${unit}]`)];
  const rows = [...speeds].sort((a, b) => a - b).map((rpm) => [String(rpm), ...maps.map((map) => cell(map.get(rpm)))]);
  return [head, ...rows].map((cells) => cells.map(quoted).join(',')).join('\r\n') + '\r\n';
}

function cell(value: number | undefined): string {
  return value === undefined || Number.isNaN(value) ? '' : String(Number(value.toFixed(4)));
}

function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
}
