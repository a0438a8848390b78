import { describe, expect, test } from '@jest/globals';
import type { Recording } from '../../recording/recording.ts';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { testDyno as roller } from '../../testing/test-car.ts';
import { generatedRun } from '../../testing/generated-run.ts';
import { loggedPull, wholeLog } from './logged-pull.ts';
import { viewOfPull, viewOfWhole, type LogView } from './log-view.ts';
import { meanLog } from './mean-log.ts';

const engine = { ignition: 'spark', boosted: false, ethanolPct: null, limits: {} } as const;

/** A drawn run with a channel that reads engine speed ÷ 100. */
function logged(seed: number): Recording {
  const run = generatedRun({ seed });
  const rpm = run.channels.find(({ name }) => name === 'engineSpeed')!.values;
  return {
    ...run,
    channels: [...run.channels, { name: 'airMassFlow', unit: 'g/s', values: rpm.map((at) => at / 100) }],
  };
}

function viewOf(recording: Recording, dyno = roller): LogView {
  const sweep = preparedSweep(recording, dyno);
  return viewOfPull(recording, sweep, loggedPull(wholeLog(recording, sweep, engine, [])), engine, []);
}
const flow = (view: Pick<LogView, 'channels'>) => view.channels.find(({ name }) => name === 'airMassFlow')!;

describe('the view of a pull', () => {
  test('a channel stands over engine speed, road speed and time with the same readings', () => {
    const view = viewOf(logged(1));
    const { speed, road, time } = flow(view);
    for (const index of [20, 100, 200]) expect(speed.values[index]! * 100).toBeCloseTo(speed.x[index]!, -1.5);
    expect(road!.x[0]!).toBeLessThan(road!.x[road!.x.length - 1]!);
    expect(road!.values[0]!).toBeCloseTo(speed.values[0]!, 0);
    expect(time.x[0]!).toBeGreaterThanOrEqual(view.startS - 1.6);
    expect(time.x[time.x.length - 1]!).toBeLessThanOrEqual(view.endS + 1.6);
    expect(view.unjudged).toBeUndefined();
  });

  test('without a radius there is no road under it, as with a hub', () => {
    const { radiusM, ...withoutRadius } = roller;
    expect(radiusM).toBe(0.25);
    const view = viewOf(logged(1), withoutRadius);
    expect(flow(view).road).toBeUndefined();
    expect(flow(view).speed.x.length).toBeGreaterThan(50);
  });
});

describe('a run that is no pull', () => {
  const run = logged(2);
  test('is shown whole over time, with its engine speed, and nothing of it is judged', () => {
    const view = viewOfWhole(run, roller, undefined, engine, [], 'No pull.');
    expect(view).toMatchObject({ events: [], unjudged: 'No pull.', startS: run.time[0], endS: run.time.at(-1) });
    expect(flow(view).speed.x).toHaveLength(0);
    expect(flow(view).time.x.length).toBeGreaterThan(100);
    expect(view.channels.some(({ name }) => name === 'engineSpeed')).toBe(true);
  });

  test('without a speed it still shows its channels, and says of a logger why it is not beside it', () => {
    const bare = { ...run, channels: run.channels.filter(({ name }) => name === 'airMassFlow') };
    const logger = { name: 'probe box', probe: { delayS: 0, offset: 0 }, recording: run };
    const view = viewOfWhole(bare, roller, undefined, engine, [logger], 'No pull.');
    expect(view.channels.map(({ name }) => name)).toEqual(['airMassFlow']);
    expect(view.loggers).toEqual([{ name: 'probe box', refused: expect.stringContaining('no speed') }]);
  });
});

describe('the mean of several runs', () => {
  test('lies between them, over what all of them reach, and over time from each one’s opening', () => {
    const views = [1, 2, 3].map((seed) => viewOf(logged(seed)));
    const { speed, time } = flow(meanLog(views));
    for (const index of [20, 100]) expect(speed.values[index]! * 100).toBeCloseTo(speed.x[index]!, -1.5);
    expect(speed.x[0]).toBeGreaterThanOrEqual(Math.max(...views.map((view) => flow(view).speed.x[0]!)));
    const opening = time.x.findIndex((at) => at >= 0);
    expect(opening).toBeGreaterThan(0);
  });

  test('a channel that only some logged is theirs alone; of one run it is that run’s', () => {
    const [one, other] = [viewOf(logged(1)), viewOf(logged(2))];
    const without = { ...other, channels: other.channels.filter(({ name }) => name !== 'airMassFlow') };
    expect(flow(meanLog([one, without])).speed).toEqual(flow(one).speed);
    expect(meanLog([one])).toBe(one);
    expect(meanLog([]).channels).toEqual([]);
  });
});
