import { describe, expect, test } from '@jest/globals';
import { comparedAt } from '../testing/two-setups.ts';
import { compareScene, sceneAt, zoomedRanges } from '../../../../core/scene/compare-scene.ts';
import { namesAtEnds, readingsAt, readingsText } from '../../../../core/scene/readings.ts';
import { framed, isEmpty, type SceneContent, type SceneLane } from '../../../../core/scene/scene.ts';
import { shownSetups } from '../../../../core/scene/shown-setups.ts';

function content(address: string): SceneContent {
  const { job, view, figures } = comparedAt(address);
  return compareScene({ view, figures, shown: shownSetups(job, figures, view) }, [])!;
}
function lane(scene: ReturnType<typeof sceneAt>, id: string): SceneLane {
  const found = scene.lanes.find((candidate) => candidate.id === id)!;
  if (isEmpty(found)) throw new Error(found.why);
  return found;
}
const labels = (values: { label: string; text: string }[]) =>
  values.map(({ label, text }) => `${label} ${text}`.trim());

describe('lanes', () => {
  const scene = sceneAt(content(''), undefined);

  test('power, torque and gain, each with its unit, its lines and words for those who cannot see it', () => {
    expect(scene.lanes.map(({ id }) => id)).toEqual(['power', 'torque', 'gain']);
    expect(lane(scene, 'power').lines.map(({ id }) => id)).toEqual(['run-4', 'run-5', 'run-6', 'mean-A', 'mean-B']);
    expect(lane(scene, 'power').unit).toMatch(/^kW/);
    expect(lane(scene, 'gain').unit).toBe('kW, B less A; grey: 95 % uncertainty, all speeds at once');
    expect(lane(scene, 'power').text).toMatch(
      /^Power of A, B over engine speed; B has most, (at least )?\d+\.\d kW, at \d,\d{3} rpm\.$/,
    );
  });

  test('a gain whose figures have the drift taken out says that its line has not', () => {
    const { job, view, figures } = comparedAt('');
    const power = structuredClone(figures.comparison!.power);
    for (const { difference } of power.ranges) difference.withoutDrift = true;
    const drifted = { ...figures, comparison: { ...figures.comparison!, power } };
    const drawn = compareScene({ view, figures: drifted, shown: shownSetups(job, drifted, view) }, [])!;
    expect(lane(sceneAt(drawn, undefined), 'gain').unit).toBe(
      'kW, B less A, drift not taken out; grey: 95 % uncertainty, all speeds at once',
    );
  });

  test('what is read is what is drawn: each reading lies on its line', () => {
    for (const drawnLane of ['power', 'torque', 'gain'].map((id) => lane(scene, id)))
      for (const { id, rpm, values, place } of drawnLane.readings) {
        const drawn = drawnLane.lines.find((line) => line.id === (drawnLane.id === 'gain' ? 'gain' : `mean-${id}`))!;
        expect([...Array.from(drawn.x)]).toEqual([...place.xs(rpm)]);
        expect([...Array.from(drawn.values)]).toEqual([...values]);
      }
  });

  test('the gain read at a speed is the difference of the powers read there', () => {
    const [a, b] = readingsAt(lane(scene, 'power'), 5000);
    const [gain] = readingsAt(lane(scene, 'gain'), 5000);
    expect(gain!.value).toBeCloseTo(b!.value - a!.value, 6);
    expect(labels([a!, b!, gain!]).join()).toMatch(/^A mean \d+\.\d,B mean \d+\.\d,B − A \+\d+\.\d$/);
    expect(gain!.colour).toBe('var(--gain)');
  });

  test('the sides exchanged: the gain lane is the same one upside down', () => {
    const back = lane(sceneAt(content('setup=A&against=B'), undefined), 'gain');
    const there = lane(scene, 'gain');
    const values = (lane: SceneLane) => Array.from(lane.lines.find(({ id }) => id === 'gain')!.values);
    values(back).forEach((value, index) => expect(value).toBeCloseTo(-values(there)[index]!, 9));
    expect(readingsAt(back, 5000)[0]!.colour).toBe('var(--loss)');
  });

  test('an estimate for the crank and other units stand in every lane that they concern', () => {
    const estimated = sceneAt(content('crank=15&power=hp'), undefined);
    expect(lane(estimated, 'power').unit).toMatch(/^hp ≈ at the crank, 15 % lost, assumed/);
    expect(lane(estimated, 'torque').unit).toMatch(/≈ at the crank, 15 % lost, assumed/);
    expect(
      lane(estimated, 'power').readings[0]!.values[40]! / lane(scene, 'power').readings[0]!.values[40]!,
    ).toBeCloseTo(1 / 0.85 / 0.745699872, 6);
  });

  test('a setup by itself has no gain, and a channel that was not logged says so', () => {
    const [power, gain, lambda] = sceneAt(content('setup=A&against=A&lanes=power.gain.lambda'), undefined).lanes;
    expect(isEmpty(power!)).toBe(false);
    expect(gain).toEqual({ id: 'gain', why: 'No gain to draw.' });
    expect(lambda).toMatchObject({ why: expect.stringMatching(/was not logged/) });
  });
});

describe('looking at a part', () => {
  const whole = content('band=3000-4500');

  test('a zoom keeps the lines as they are, and fits the value axis to what is seen', () => {
    const [all, part] = [sceneAt(whole, undefined), sceneAt(whole, [2500, 3500])];
    expect(lane(part, 'power').lines).toBe(lane(all, 'power').lines);
    expect(part.range).toEqual([2500, 3500]);
    expect(lane(part, 'power').values.most).toBeLessThan(lane(all, 'power').values.most);
    expect(lane(all, 'power').decoration.bands).toEqual([{ from: 3000, to: 4500 }]);
  });

  test('a zoom beyond the lines, or narrower than can be read, shows the whole', () => {
    expect(zoomedRanges(whole, [9000, 12_000]).range).toEqual(whole.whole);
    expect(zoomedRanges(whole, [3000, 3050]).range).toEqual(whole.whole);
    expect(zoomedRanges(whole, [0, 4000]).rangeRpm).toEqual([whole.wholeRpm[0], 4000]);
  });

  test('over time each line stands where its own runs were', () => {
    const timed = content('axis=time');
    expect(timed.whole[0]).toBe(0);
    const { rpm, place } = lane(framed(timed, timed.whole), 'power').readings[1]!;
    expect(place.rpm(place.x(4200))).toBeCloseTo(4200, 3);
    expect(place.x(rpm.at(-1)!)).toBeLessThanOrEqual(timed.whole[1]);
  });

  test('names stand beside the ends, without a figure', () => {
    const scene = sceneAt(whole, undefined);
    expect(labels(namesAtEnds(lane(scene, 'power'), scene.range))).toEqual(['A', 'B']);
    expect(namesAtEnds(lane(scene, 'gain'), scene.range)).toEqual([]);
  });
});

describe('readings for a spreadsheet', () => {
  const rows = (address: string, rpm: number) =>
    readingsText(sceneAt(content(address), undefined), rpm, rpm)
      .split('\n')
      .map((row) => row.split('\t'));

  test('a line a setup and one for the gain, a column a lane, units in the head', () => {
    const [head, a, b, gain] = rows('', 5000);
    expect(head).toEqual(['setup', 'engine speed [rpm]', 'power [kW]', 'torque [N·m]', 'gain [kW]']);
    expect(a).toEqual(['A', '5000', expect.stringMatching(/^\d+\.\d$/), expect.stringMatching(/^\d+\.\d$/), '']);
    expect(b![0]).toBe('B');
    expect(gain).toEqual(['B − A', '5000', '', '', expect.stringMatching(/^\+\d\.\d$/)]);
  });

  test('nothing is read beyond a line’s end, and an estimate says what it rests on', () => {
    expect(rows('', 20_000)[1]).toEqual(['A', '20000', '', '', '']);
    expect(rows('crank=15', 5000)[0]![2]).toBe('power [kW ≈ at the crank, 15 % lost, assumed]');
  });
});
