import { describe, expect, test } from '@jest/globals';
import { addressWith, logsViewIn, type LogsView } from './log-address.ts';

const at = (address: string) => logsViewIn(new URLSearchParams(address));

describe('the address of a log', () => {
  test('asks for nothing: the usual view', () => {
    expect(at('')).toEqual({
      run: undefined,
      beside: undefined,
      axis: 'engine-speed',
      at: undefined,
      zoom: undefined,
      show: 'lanes',
      cell: undefined,
      lanes: undefined,
    });
  });

  test('what is written into it is read out of it', () => {
    const asked: LogsView = {
      run: 'B2',
      beside: ['A', 'C3'],
      axis: 'time',
      at: 3.46,
      zoom: [-1.2, 8.75],
      lanes: ['lambda', 'own probe'],
      show: 'fuelling',
      cell: 12,
    };
    expect(logsViewIn(addressWith(new URLSearchParams(), asked))).toEqual(asked);
  });

  test('nothing beside is not the same as nobody having chosen', () => {
    const address = addressWith(new URLSearchParams(), { beside: [] });
    expect(address.get('beside')).toBe('none');
    expect(logsViewIn(address).beside).toEqual([]);
  });

  test('changes leave the rest as it is, and take out what they say is undefined', () => {
    const address = addressWith(new URLSearchParams('run=B2&by=road&at=88&zoom=60_90'), {
      at: undefined,
      zoom: undefined,
    });
    expect(address.toString()).toBe('run=B2&by=road');
  });

  test.each(['at=none', 'zoom=5', 'zoom=9_3', 'by=nonsense', 'at=Infinity'])('%s asks for nothing', (address) => {
    expect(at(address)).toEqual(at(''));
  });

  test('no more is laid beside than can be told apart', () => {
    expect(at('beside=A.B.C.D').beside).toHaveLength(2);
  });
});
