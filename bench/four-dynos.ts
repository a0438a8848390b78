import type { BaysState } from '../contract/bays/live.ts';
import type { StartedSuvok } from '../launch/suvok-programs.ts';
import type { Figure } from './figure.ts';
import { Instrument } from './instrument.ts';
import { meanOf } from '../core/numerics/mean.ts';
import { processorS, residentMb } from './process-use.ts';

/** Four dynos at 1 kHz × 16 channels at once: a minute, or ten with `--long`. */
const lastsS = process.argv.includes('--long') ? 600 : 60;
const names = ['first', 'second', 'third', 'fourth'].map((word) => `${word}-roller`);

/** Frames lost, the recorder's share of a core, and whether its memory stays flat. */
export async function fourDynos(server: StartedSuvok): Promise<Figure[]> {
  const custom = Array.from({ length: 14 }, (_, index) => ({ name: `custom${index}`, unit: 'kPa' }));
  const channels = [{ name: 'rollerSpeed', unit: 'rad/s' }, { name: 'engineSpeed', unit: 'rpm' }, ...custom];
  const clients = await Promise.all(
    names.map((device) => Instrument.connect(server.benchLinkPort, { device, rateHz: 1000, channels })),
  );
  const pid = server.recorder.child.pid ?? 0;
  const began = performance.now();
  const usedBefore = processorS(pid);
  const memory: number[] = [];
  const elapsedS = () => (performance.now() - began) / 1000;
  for (let step = 0; elapsedS() < lastsS;) {
    for (const due = Math.floor(1000 * elapsedS()); step < due; step++) {
      const readings = custom.map(
        (_, index) => Math.round(1000 * (100 + 10 * Math.sin(step * 0.001 * (index + 1)))) / 10,
      );
      // A pull of five seconds in every fifteen.
      const phase = (step / 1000) % 15;
      const speed = phase < 5 ? 20 : phase < 10 ? 20 + 14 * (phase - 5) : 90 - 14 * (phase - 10);
      for (const client of clients) client.frame(step / 1000, [speed, speed * 32, ...readings]);
    }
    if (memory.length < Math.floor(elapsedS() / 5)) memory.push(residentMb(pid));
    await new Promise((resolve) => setTimeout(resolve, 4));
  }
  const used = processorS(pid) - usedBefore;
  const took = elapsedS();
  await new Promise((resolve) => setTimeout(resolve, 500));
  const { bays } = (await (await fetch(`http://127.0.0.1:${server.port}/api/bays`)).json()) as BaysState;
  for (const client of clients) client.close();
  const own = bays.flatMap(({ devices }) => devices).filter(({ device }) => names.includes(device));
  if (own.length !== names.length) throw new Error(`of four dynos ${own.length} are heard, each in a bay of its own`);
  const lost = own.reduce((sum, { missing }) => sum + missing, 0);
  // The first half minute fills the buffers.
  const settled = memory.slice(Math.min(6, memory.length - 2));
  return [
    { name: `frames lost in ${lastsS} s of four dynos at 1 kHz × 16`, value: lost, unit: '', budget: 0 },
    { name: 'share of a core that the recorder took for them', value: (100 * used) / took, unit: '%', budget: 40 },
    { name: 'memory of the recorder with four', value: memory.at(-1) ?? 0, unit: 'MB' },
    { name: 'growth of it after the first half minute', value: (settled.at(-1) ?? 0) - (settled[0] ?? 0), unit: 'MB' },
    // A heap breathes: means of quarters tell what stays.
    {
      name: 'growth of its mean from the third quarter to the last',
      value: meanOf(quarter(memory, 3)) - meanOf(quarter(memory, 2)),
      unit: 'MB',
      budget: 10,
    },
  ];
}

const quarter = (values: readonly number[], which: number) =>
  values.slice((which * values.length) >> 2, ((which + 1) * values.length) >> 2);
