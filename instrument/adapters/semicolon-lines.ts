import type { Adapter } from './adapter.ts';

/**
 * The example: a home-made loaded roller that sends lines such as
 * `12.345;61.20;182.4;2034` over TCP, a hundred times a second:
 * seconds since it was switched on; roller speed, rad/s; load cell, N·m;
 * engine speed, rpm, `-` where the pickup reads nothing. Lines that begin with
 * `#` are its remarks. Copy this file, and change what your instrument says.
 */
export const semicolonLines: Adapter = {
  name: 'semicolon-lines',
  hello: {
    name: 'Roller with semicolons',
    kind: 'loaded-roller',
    channels: [
      { name: 'rollerSpeed', unit: 'rad/s' },
      { name: 'absorberTorque', unit: 'N·m' },
      { name: 'engineSpeed', unit: 'rpm' },
    ],
    rateHz: 100,
    commands: [],
    faults: [],
    dyno: {
      kind: 'loaded-roller',
      inertiaKgM2: 9.5,
      radiusM: 0.159,
      parasitic: { aNm: 4, bNmPerRadS: 0.03, cNmPerRadS2: 0.0002 },
      loadCellLagS: 0.05,
    },
  },
  reader() {
    return (line) => {
      if (line.startsWith('#')) return undefined;
      const [time, ...readings] = line.split(';');
      if (readings.length !== 3 || !Number.isFinite(Number(time))) return undefined;
      const values = readings.map((reading) => (reading.trim() === '-' ? null : Number(reading)));
      return values.some((value) => Number.isNaN(value)) ? undefined : { time: Number(time), values };
    };
  },
};
