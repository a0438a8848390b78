import { Refusal } from '../../refusal.ts';
import { convert, type PowerUnit } from '../../units/units.ts';

/**
 * Pairs of engine speed (rpm) and power as people type or paste them: a pair a
 * line, apart by blanks, a tab, a comma or a semicolon; a line of words before
 * them is taken for a head.
 *
 * @param unit of the powers
 * @returns rpm, rising, and kW
 * @throws Refusal with the line that cannot be read
 */
export function readCurvePoints(text: string, unit: PowerUnit): [rpm: number, kw: number][] {
  const lines = text
    .split(/\r?\n/)
    .map((line, index) => ({ line: line.trim(), number: index + 1 }))
    .filter(({ line }) => line !== '');
  const rows = lines.length > 0 && !/\d/.test(lines[0]!.line) ? lines.slice(1) : lines;
  const points = rows.map(({ line, number }): [number, number] => {
    // Blanks are made single first: a pattern that tries them at every place would take a square of the line.
    const single = line.replace(/\s+/g, ' ');
    const cells = single.split(/ ?; ?|, ?(?=-?\d+(?:\.\d+)?$)| /).filter(Boolean);
    const [rpm = NaN, power = NaN] = cells.map(Number);
    if (cells.length !== 2 || !Number.isFinite(rpm) || !Number.isFinite(power))
      throw new Refusal(`Line ${number}, “${line}”, is not an engine speed and a power, such as “3000 47.5”.`);
    if (!(rpm > 0 && rpm <= 30_000)) throw new Refusal(`Line ${number}: ${rpm} rpm is no engine speed.`);
    return [rpm, Number(convert(power, unit, 'kW').toFixed(4))];
  });
  if (points.length < 2) throw new Refusal('Give two points at least, a pair a line.');
  points.sort(([a], [b]) => a - b);
  const twice = points.find(([rpm], index) => index > 0 && rpm === points[index - 1]![0]);
  if (twice) throw new Refusal(`${twice[0]} rpm is given twice.`);
  return points;
}
