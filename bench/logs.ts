import { logEvents } from '../core/log/checks/events.ts';
import { lineUp } from '../core/log/logger-file/line-up.ts';
import { chance, normal } from '../core/testing/chance.ts';
import { loggedRun, logFaults, type LoggedKind } from '../core/testing/logged-run.ts';
import type { Figure } from './figure.ts';

const healthy = 300;
const faulty = 60;
const kinds: readonly LoggedKind[] = ['turbo', 'plain', 'diesel', 'blower'];

/** False alarms and hits of every check on logged channels, and how well a logger's clock is lined up. */
export function logRates(): Figure[] {
  const alarms = Array.from({ length: healthy }, (_, seed) =>
    logEvents(loggedRun(9000 + seed, undefined, kinds[seed % kinds.length])).map(({ id }) => id),
  );
  return [
    ...logFaults.map((id): Figure => ({
      name: `${id}: false alarms on ${healthy} healthy logs`,
      value: (100 * alarms.filter((ids) => ids.includes(id)).length) / healthy,
      unit: '%',
      budget: 1,
    })),
    ...logFaults.flatMap((id) =>
      [1, 0.5].map((size): Figure => {
        const hits = Array.from({ length: faulty }, (_, seed) =>
          logEvents(loggedRun(4000 + seed, id, kinds[seed % kinds.length], size)).some((event) => event.id === id),
        );
        return {
          name: `${id}: hits, ${size === 1 ? '' : 'half the size, '}${faulty} logs`,
          value: (100 * hits.filter(Boolean).length) / faulty,
          unit: '%',
        };
      }),
    ),
    ...clockErrors(),
  ];
}

/** A pull seen by a dyno at 200 Hz and a logger at 10 to 50 Hz, each with its noise; how far off the shift is, ms. */
function clockErrors(): Figure[] {
  const errors = Array.from({ length: 100 }, (_, seed) => {
    const random = chance(seed + 77);
    const scatter = normal(random);
    const [offsetS, rateHz] = [2000 * (random() - 0.5), 10 + 40 * random()];
    const trace = (rate: number, shiftS: number, noise: number) => {
      const time = Float64Array.from({ length: Math.floor(16 * rate) }, (_, index) => index / rate);
      const rpm = time.map(
        (at) =>
          2000 + 4600 * Math.min(1, Math.max(0, (at - 3) / 9)) ** 0.9 - Math.max(0, at - 12) * 420 + noise * scatter(),
      );
      return { time: time.map((at) => at - shiftS), rpm };
    };
    return 1000 * Math.abs(lineUp(trace(200, 0, 8), trace(rateHz, offsetS, 12)).shiftS - offsetS);
  }).sort((a, b) => a - b);
  return [
    { name: 'logger’s clock lined up, error, median of 100', value: errors[50]!, unit: 'ms' },
    { name: 'logger’s clock lined up, error, worst of 100', value: errors[99]!, unit: 'ms', budget: 20 },
  ];
}
