import { expect, test } from '@jest/globals';
import { changeItems } from './change.ts';
import { setupLetter } from './letter.ts';

test.each([
  ['ignition +1.5° above 4,000', [{ kind: 'ignition', deltaDeg: 1.5, aboveRpm: 4000 }]],
  ['Ignition −2 deg', [{ kind: 'ignition', deltaDeg: -2 }]],
  ['ignition + 0,5° from 3500 rpm', [{ kind: 'ignition', deltaDeg: 0.5, aboveRpm: 3500 }]],
  ['intake trumpets 40 mm shorter', [{ kind: 'intake-length', deltaMm: -40 }]],
  ['trumpets +25 mm', [{ kind: 'intake-length', deltaMm: 25 }]],
  [
    'runners 30mm longer, ignition -1',
    [
      { kind: 'ignition', deltaDeg: -1 },
      { kind: 'intake-length', deltaMm: 30 },
    ],
  ],
  ['cold plugs fitted', []],
])('%s', (line, items) => {
  expect(changeItems(line)).toEqual(items);
});

test('letters go on after Z', () => {
  expect([0, 1, 25, 26, 27, 51, 52, 701, 702].map(setupLetter)).toEqual([
    'A',
    'B',
    'Z',
    'AA',
    'AB',
    'AZ',
    'BA',
    'ZZ',
    'AAA',
  ]);
});
