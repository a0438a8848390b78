import { describe, expect, it } from '@jest/globals';
import type { FuellingAxes } from './axes.ts';
import { mustFit, readTable, writeTable } from './table-text.ts';

const axes: FuellingAxes = {
  across: { channel: 'engineSpeed', breakpoints: [1500, 2000, 2500] },
  down: { channel: 'manifoldPressure', breakpoints: [35.5, 50] },
};

describe('a table as text', () => {
  it('comes back as it went out, empty cells too', () => {
    const values = [1.01, NaN, 0.985, 1, 1.1, 0.9];
    for (const separator of ['\t', ';', ',']) {
      const read = readTable(writeTable(axes, values, 3, separator));
      expect(read).toEqual({ across: [1500, 2000, 2500], down: [35.5, 50], values });
      mustFit(axes, read);
    }
  });

  it('reads axes alone: a line, a column, with decimal commas', () => {
    expect(readTable('1500 2000  2500')).toEqual({ across: [1500, 2000, 2500], down: null, values: null });
    expect(readTable('35,5\n50\n')).toMatchObject({ down: null });
    expect(readTable('0,8\t1,2\t1,6\n').across).toEqual([0.8, 1.2, 1.6]);
    expect(readTable('rpm\t1500\t2000\n35\t1\t2\n50\t3\t4').down).toEqual([35, 50]);
    expect(readTable('1500\t2000\n35\t1\t2\n50\t3\t4').values).toEqual([1, 2, 3, 4]);
  });

  it('says which line is wrong', () => {
    expect(() => readTable('')).toThrow(/nothing to read/);
    expect(() => readTable('\t1500\t2000\n35\t1\n50\t3\t4')).toThrow(/Line 2 has 2 cells.*should have 3/);
    expect(() => readTable('\t1500\t2000\n35\tlean\t2')).toThrow(/Line 2: “lean” is not a number/);
    expect(() => readTable('1500 1400')).toThrow(/must rise: 1400 stands after 1500/);
    expect(() => readTable('1500')).toThrow(/at least two/);
  });

  it('is not laid over other cells', () => {
    expect(() => mustFit(axes, readTable('\t1500\t2000\t2600\n35.5\t1\t1\t1\n50\t1\t1\t1'))).toThrow(
      /other breakpoints/,
    );
  });
});
