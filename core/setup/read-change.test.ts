import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differences, lineOf, sameStates, stateOf, type SetupStep } from './difference.ts';
import { itemWords, namedKinds, numericItems, numericKinds, type SetupItem } from './item.ts';
import { setupLetter } from './letter.ts';
import { scorePrediction } from './prediction.ts';
import { readChange } from './read-change.ts';
import { branchDepths } from './tree.ts';

describe('a change in a line', () => {
  test.each<[string, SetupItem[]]>([
    ['ignition +1.5° above 4,000', [{ kind: 'ignition', by: 1.5, aboveRpm: 4000 }]],
    ['Ignition −2 deg', [{ kind: 'ignition', by: -2 }]],
    ['ignition + 0,5° from 3500 rpm', [{ kind: 'ignition', by: 0.5, aboveRpm: 3500 }]],
    ['ignition 2° later', [{ kind: 'ignition', by: -2 }]],
    ['intake trumpets 40 mm shorter', [{ kind: 'intake-length', by: -40 }]],
    ['trumpets +25 mm', [{ kind: 'intake-length', by: 25 }]],
    ['boost +0.1 bar', [{ kind: 'boost', by: 10 }]],
    ['boost 1.2 bar above 3000', [{ kind: 'boost', to: 120, aboveRpm: 3000 }]],
    ['boost −2 psi', [{ kind: 'boost', by: -13.789514 }]],
    ['λ target 0.88', [{ kind: 'lambda-target', to: 0.88 }]],
    ['lambda -0.02 above 5,500', [{ kind: 'lambda-target', by: -0.02, aboveRpm: 5500 }]],
    ['cam 4° later', [{ kind: 'intake-cam', by: -4 }]],
    ['exhaust cam +2°', [{ kind: 'exhaust-cam', by: 2 }]],
    ['injection end 20° earlier', [{ kind: 'injection-end', by: 20 }]],
    ['plug gap 0.7 mm', [{ kind: 'plug-gap', to: 0.7 }]],
    ['tyres 2.4 bar', [{ kind: 'tyre-pressure', to: 240 }]],
    ['tune file r7 rich top', [{ kind: 'tune-file', name: 'r7 rich top' }]],
    ['brindle-r3.bin', [{ kind: 'tune-file', name: 'brindle-r3.bin' }]],
    ['E85', [{ kind: 'fuel', name: 'E85' }]],
    ['fuel 98 octane', [{ kind: 'fuel', name: '98 octane' }]],
    ['5th gear', [{ kind: 'gear', name: '5th' }]],
    ['fan full', [{ kind: 'fan', name: 'full' }]],
    ['bonnet open', [{ kind: 'bonnet', name: 'open' }]],
    ['air conditioning off', [{ kind: 'air-conditioning', name: 'off' }]],
    ['ice on the charge cooler', [{ kind: 'charge-cooling', name: 'ice' }]],
    ['filter removed', [{ kind: 'filter', name: 'removed' }]],
    ['paper filter', [{ kind: 'filter', name: 'paper' }]],
    ['tyres slicks', [{ kind: 'tyres', name: 'slicks' }]],
    ['cold plugs fitted', [{ kind: 'part-fitted', name: 'cold plugs' }]],
    ['removed resonator', [{ kind: 'part-removed', name: 'resonator' }]],
    ['pump timing +2°', [{ kind: 'own', name: 'pump timing', unit: '°', by: 2 }]],
    ['fuel stop +2 clicks', [{ kind: 'own', name: 'fuel stop', unit: 'click', by: 2 }]],
    ['fuel delivery +4 mm³', [{ kind: 'own', name: 'fuel delivery', unit: 'mm³', by: 4 }]],
    ['1 spacer less', [{ kind: 'own', name: 'spacer', unit: '', by: -1 }]],
    ['2 spacers more', [{ kind: 'own', name: 'spacer', unit: '', by: 2 }]],
    ['idle screw 0.5 turns out', [{ kind: 'own', name: 'idle screw', unit: 'turn', by: -0.5 }]],
    ['main jet 125', [{ kind: 'own', name: 'main jet', unit: '', to: 125 }]],
    ['pulley to 78 mm', [{ kind: 'own', name: 'pulley', unit: 'mm', to: 78 }]],
    ['ethanol 30 %', [{ kind: 'own', name: 'ethanol', unit: '%', to: 30 }]],
    ['something odd', [{ kind: 'words', name: 'something odd' }]],
    [
      'runners 30mm longer, ignition -1',
      [
        { kind: 'intake-length', by: 30 },
        { kind: 'ignition', by: -1 },
      ],
    ],
    [
      'boost +5 kPa and bonnet closed; plug gap -0.1 mm',
      [
        { kind: 'boost', by: 5 },
        { kind: 'bonnet', name: 'closed' },
        { kind: 'plug-gap', by: -0.1 },
      ],
    ],
    ['', []],
  ])('%s', (line, items) => {
    expect(readChange(line)).toEqual(items);
  });

  test('the same step twice is two steps, and back is back', () => {
    const step = (id: number, parentId: number | null, line: string): SetupStep => ({
      id,
      parentId,
      items: readChange(line),
    });
    const setups = [
      step(1, null, ''),
      step(2, 1, '1 spacer less'),
      step(3, 2, '1 spacer less'),
      step(4, 3, '2 spacers more'),
    ];
    expect(stateOf(setups, 3).get('own:spacer/0')).toMatchObject({ by: -2 });
    expect(differences(setups, 1, 2)).toHaveLength(1);
    expect([...sameStates(setups).values()]).toEqual([1, 2, 3, 1]);
  });

  test('what an item is called is read back as that item', () => {
    const numeric = fc
      .record({
        kind: fc.constantFrom(...numericKinds),
        by: fc.integer({ min: -400, max: 400 }).filter((value) => value !== 0),
        rpm: fc.option(fc.integer({ min: 10, max: 120 }), { nil: undefined }),
        to: fc.boolean(),
      })
      .map(({ kind, by, rpm, to }): SetupItem => {
        const value = by / 10 ** numericItems[kind].digits;
        // These hold over the whole range.
        const everywhere = ['injection-end', 'intake-length', 'tyre-pressure', 'plug-gap'].includes(kind);
        const where = rpm === undefined || everywhere ? {} : { aboveRpm: rpm * 100 };
        return to ? { kind, to: Math.abs(value), ...where } : { kind, by: value, ...where };
      });
    fc.assert(fc.property(numeric, (item) => expect(readChange(itemWords(item))).toEqual([item])));
    const names = namedKinds.filter((kind) => kind !== 'words');
    for (const kind of names) {
      const item: SetupItem = { kind, name: 'r7' };
      expect(readChange(itemWords(item))).toEqual([item]);
    }
  });

  test('no line breaks it, and every clause counts', () => {
    fc.assert(fc.property(fc.string(), (line) => readChange(line).every((item) => itemWords(item) !== undefined)));
  });
});

describe('two setups', () => {
  const steps: SetupStep[] = [
    { id: 1, parentId: null, items: [] },
    { id: 2, parentId: 1, items: [{ kind: 'ignition', by: 1.5 }] },
    {
      id: 3,
      parentId: 2,
      items: [
        { kind: 'ignition', by: 1 },
        { kind: 'fuel', name: 'E85' },
      ],
    },
    { id: 4, parentId: 3, items: [{ kind: 'ignition', by: -2.5 }] },
    { id: 5, parentId: 1, items: [{ kind: 'boost', to: 90 }] },
    { id: 6, parentId: 5, items: [{ kind: 'boost', by: 10 }] },
  ];

  test('steps of one thing add up along the line', () => {
    expect(lineOf(steps, 4).map(({ id }) => id)).toEqual([1, 2, 3, 4]);
    expect(stateOf(steps, 3).get('ignition/0')).toEqual({ kind: 'ignition', by: 2.5 });
    expect(stateOf(steps, 6).get('boost/0')).toEqual({ kind: 'boost', to: 100 });
  });

  test('what was taken back, or inherited by both, is no difference', () => {
    expect(differences(steps, 1, 4)).toEqual([{ from: undefined, to: { kind: 'fuel', name: 'E85' } }]);
    expect(differences(steps, 3, 4)).toHaveLength(1);
    expect(differences(steps, 6, 6)).toEqual([]);
    expect(differences(steps, 2, 6)).toHaveLength(2);
  });
});

test('setups of one state are those without a difference, whatever way led there', () => {
  const steps: SetupStep[] = [
    { id: 1, parentId: null, items: [] },
    { id: 2, parentId: 1, items: [{ kind: 'ignition', by: 1.5 }] },
    { id: 3, parentId: 1, items: [] },
    { id: 4, parentId: 2, items: [{ kind: 'boost', to: 90 }] },
    { id: 5, parentId: 2, items: [{ kind: 'ignition', by: -1.5 }] },
    { id: 6, parentId: 4, items: [{ kind: 'ignition', by: -1.5 }] },
    { id: 7, parentId: 1, items: [{ kind: 'boost', to: 90 }] },
  ];
  const states = sameStates(steps);
  expect([...states.values()]).toEqual([1, 2, 1, 4, 1, 6, 6]);
  for (const { id: a } of steps)
    for (const { id: b } of steps)
      expect([a, b, states.get(a) === states.get(b)]).toEqual([a, b, differences(steps, a, b).length === 0]);
});

test('a prediction is scored against the interval', () => {
  expect(scorePrediction({ gainKw: 2 }, undefined)).toBe('open');
  expect(scorePrediction({ gainKw: 2 }, { difference: 1.5, halfWidth: NaN })).toBe('open');
  expect(scorePrediction({ gainKw: 2 }, { difference: 1.5, halfWidth: 0.6 })).toBe('held');
  expect(scorePrediction({ gainKw: 4 }, { difference: 1.5, halfWidth: 0.6 })).toBe('too high');
  expect(scorePrediction({ gainKw: 0.5 }, { difference: 1.5, halfWidth: 0.6 })).toBe('too low');
  expect(scorePrediction({ gainKw: 2 }, { difference: -1.5, halfWidth: 0.6 })).toBe('wrong way');
});

test('a setup that goes back to an earlier one branches off; what follows it stands under it', () => {
  const chain = (...parents: (number | null)[]) =>
    [...branchDepths(parents.map((parentId, index) => ({ id: index + 1, parentId }))).values()].join(' ');
  expect(chain(null, 1, 2)).toBe('0 0 0');
  expect(chain(null, 1, 1, 3)).toBe('0 0 1 1');
  expect(chain(null, 1, 2, 2, 4, 1)).toBe('0 0 0 1 1 1');
  expect(chain(null, 1, 1, 1, 4, 3)).toBe('0 0 1 1 1 2');
  fc.assert(
    fc.property(fc.array(fc.nat(), { maxLength: 40 }), (draws) => {
      const setups = draws.map((draw, index) => ({ id: index, parentId: index === 0 ? null : draw % index }));
      const depths = branchDepths(setups);
      return depths.size === setups.length && [...depths.values()].every((depth) => depth >= 0 && depth <= 3);
    }),
  );
});

test('letters go on after Z', () => {
  expect([0, 1, 25, 26, 27, 51, 52, 701, 702].map(setupLetter)).toEqual('A B Z AA AB AZ BA ZZ AAA'.split(' '));
});
