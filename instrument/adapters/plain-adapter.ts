import { helloOf, type PlainInstrument } from '../../contract/instruments/plain-instrument.ts';
import { readPlainLine } from '../../core/exchange/recordings/plain-line.ts';
import type { Adapter } from './adapter.ts';

/** Lines that come together are laid no further back than this, s. */
const longestBackS = 0.5;

/** An instrument that somebody described on Devices, as an adapter. */
export function plainAdapter(instrument: PlainInstrument): Adapter {
  const { device, form, greeting } = instrument;
  return {
    name: device,
    ...(greeting === '' ? {} : { greeting }),
    hello: helloOf(instrument),
    reader() {
      const arrival = arrivalClock();
      return (line, { of, at }) => {
        const time = arrival(of, at);
        const reading = readPlainLine(form, line);
        return reading && { time: reading.time ?? time, values: reading.values };
      };
    },
  };
}

/**
 * When lines were read, of an instrument without a clock: those that came
 * together are spread evenly over the time since the last ones.
 */
function arrivalClock(): (of: number, at: number) => number {
  const startedMs = performance.now();
  let lastS = 0;
  let nowS = 0;
  return (of, at) => {
    if (at === 0) {
      lastS = Math.max(nowS, (performance.now() - startedMs) / 1000 - longestBackS);
      nowS = Math.max((performance.now() - startedMs) / 1000, lastS + 1e-6 * of);
    }
    return lastS + ((nowS - lastS) * (at + 1)) / of;
  };
}
