import { written } from '../sentence/sentence.ts';
import { expect, test } from '@jest/globals';
import type { LogEvent } from '../log/pull/run-log.ts';
import { runFindings } from './run-findings.ts';

const event = (over: Partial<LogEvent>): LogEvent => ({
  name: 'knock',
  id: 'knock',
  severity: 'mind',
  fromS: 1,
  toS: 2,
  fromRpm: 3000,
  toRpm: 3300,
  figure: 2,
  unit: '°',
  message: 'Light knock: up to 2.0° taken back from 3,000 to 3,300 rpm.',
  channels: [],
  ...over,
});

test('two alike are said once: the gravest in its own words, the others with their places', () => {
  const graver = event({
    severity: 'stop',
    figure: 5,
    fromS: 5,
    fromRpm: 5200,
    toRpm: 5600,
    message: 'Knock: up to 5.0° taken back from 5,200 to 5,600 rpm.',
    limit: 'knockRetard',
  });
  const third = event({ fromS: 3, fromRpm: 4000, toRpm: 4000, figure: 1 });
  const [said, ...rest] = runFindings([], [event({}), graver, third], []);
  expect(rest).toEqual([]);
  expect(said && { ...said, message: written(said.message) }).toEqual({
    id: 'knock',
    from: 'log',
    severity: 'stop',
    limit: true,
    weight: 5,
    message: 'Knock: up to 5.0° taken back from 5,200 to 5,600 rpm. Also from 3,000 to 3,300 and at 4,000 rpm.',
  });
});

test('what is not alike stays apart, the gravest first', () => {
  const found = runFindings(
    [],
    [event({}), event({ id: 'lean', severity: 'stop', message: 'Lean.' })],
    [{ id: 'rough', severity: 'note', message: 'Rough.' }],
  );
  expect(found.map(({ id }) => id)).toEqual(['lean', 'knock', 'rough']);
});
