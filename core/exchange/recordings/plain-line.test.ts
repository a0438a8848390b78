import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cellValue, likelyForm, lineCells, readPlainLine, type PlainLineForm } from './plain-line.ts';

const speed = { is: 'channel', name: 'rollerSpeed', unit: 'rad/s' } as const;
const engine = { is: 'channel', name: 'engineSpeed', unit: 'rpm' } as const;
const time = { is: 'time', unit: 'ms' } as const;
const form = (over: Partial<PlainLineForm> = {}): PlainLineForm => ({
  separator: ';',
  decimalComma: false,
  begins: '',
  columns: [time, speed, { is: 'nothing' }, engine],
  ...over,
});

describe('a line', () => {
  test('gives its time in seconds and a value for every channel, in order', () => {
    expect(readPlainLine(form(), '12345;61.20;x;2034')).toEqual({ time: 12.345, values: [61.2, 2034] });
    expect(readPlainLine(form({ columns: [speed] }), ' 61.2 ; more')).toEqual({ time: undefined, values: [61.2] });
  });

  test.each([
    ['12345;-;x;2034', [null, 2034]],
    ['12345;61.2;x;NaN', [61.2, null]],
    ['12345;;x;err', [null, null]],
  ])('%s: what was not read is absent', (line, values) => {
    expect(readPlainLine(form(), line)?.values).toEqual(values);
  });

  test.each(['', '# warming up', '1;2', 'x;1;2;3', '1;a;2;3', '-;1;2;3', '1;1e999;2;3', '0x10;1;2'])(
    '%j holds no reading',
    (line) => {
      expect(readPlainLine(form(), line)).toBeUndefined();
    },
  );

  test('commas for points, blanks of any width, tabs, and what a line begins with', () => {
    expect(readPlainLine(form({ decimalComma: true }), '1000;61,2;0;2034')?.values).toEqual([61.2, 2034]);
    expect(readPlainLine(form({ separator: ' ' }), '  1000   61.2 0\t2034 ')?.values).toEqual([61.2, 2034]);
    expect(readPlainLine(form({ separator: '\t' }), '1000\t61.2\t\t2034')?.values).toEqual([61.2, 2034]);
    const sentence = form({ separator: ',', begins: '$RD' });
    expect(readPlainLine(sentence, '$RD,1000,61.2,0,2034')?.values).toEqual([61.2, 2034]);
    expect(readPlainLine(sentence, '$XX,1000,61.2,0,2034')).toBeUndefined();
    expect(lineCells({ separator: ',', begins: '$RD' }, '$RD7,8')).toEqual(['7', '8']);
  });

  test('whatever numbers are written, they are read', () => {
    const number = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 });
    fc.assert(
      fc.property(
        fc.array(number, { minLength: 1, maxLength: 20 }),
        fc.constantFrom(';', '\t', '|', ' '),
        fc.boolean(),
        (values, separator, decimalComma) => {
          const written = values.map((value) => String(value).replace('.', decimalComma ? ',' : '.')).join(separator);
          const columns = values.map((_, at) => ({ is: 'channel' as const, name: `c${at}`, unit: '' }));
          expect(readPlainLine({ separator, decimalComma, begins: '', columns }, written)?.values).toEqual(
            values.map((value) => value + 0),
          );
        },
      ),
    );
  });

  test('no text makes it fail', () => {
    fc.assert(fc.property(fc.string({ unit: 'binary' }), (line) => void readPlainLine(form(), line)));
    expect(cellValue('1,5', true)).toBe(1.5);
    expect(cellValue('1,5', false)).toBeUndefined();
  });
});

describe('the likely form', () => {
  test.each([
    [['1;2.5;3', '2;2.6;3'], { separator: ';', decimalComma: false }],
    [['1;2,5;3', '2;2,6;3'], { separator: ';', decimalComma: true }],
    [['1,2.5,3', '2,2.6,3'], { separator: ',', decimalComma: false }],
    [['1\t2.5\t3'], { separator: '\t', decimalComma: false }],
    [['1 2.5   3'], { separator: ' ', decimalComma: false }],
    [['1|2.5|3'], { separator: '|', decimalComma: false }],
    [[], { separator: ',', decimalComma: false }],
  ] as const)('of %j', (lines, expected) => {
    expect(likelyForm(lines)).toEqual(expected);
  });
});
