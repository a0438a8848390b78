import { parseArgs } from 'node:util';
import { Bench } from './bench.ts';
import { Elsewhere } from '../instrument/elsewhere.ts';
import { machines, type MachineKind } from './machine.ts';

/**
 * The stand-in instruments as a process of their own. Any client of the bench
 * link could take their place (docs/bench-link.md). With --fingerprint, Suvok is
 * another machine: --code pairs one instrument, and --keys is where its key is kept.
 */
const { values } = parseArgs({
  options: {
    host: { type: 'string', default: '127.0.0.1' },
    port: { type: 'string', default: process.env.BENCH_LINK_PORT ?? '5181' },
    seed: { type: 'string', default: '1' },
    rate: { type: 'string', default: '200' },
    dyno: { type: 'string', default: process.env.STAND_IN_DYNO ?? 'inertia-roller' },
    fast: { type: 'boolean', default: false },
    'started-at': { type: 'string' },
    bay: { type: 'string' },
    number: { type: 'string', default: '1' },
    fingerprint: { type: 'string' },
    keys: { type: 'string', default: 'stand-in-keys.json' },
    code: { type: 'string' },
  },
});

if (!Object.hasOwn(machines, values.dyno)) {
  process.stderr.write(
    `suvok: there is no stand-in “${values.dyno}”; there are ${Object.keys(machines).join(', ')}.\n`,
  );
  process.exit(1);
}
const bench = new Bench(
  {
    host: values.host,
    port: Number(values.port),
    seed: Number(values.seed),
    rateHz: Number(values.rate),
    machine: values.dyno as MachineKind,
    startedAt: values['started-at'],
    bay: values.bay,
    number: Number(values.number),
    elsewhere:
      values.fingerprint === undefined ? undefined : new Elsewhere(values.fingerprint, values.keys, values.code),
  },
  values.fast,
);

function close(): void {
  bench.close();
  setTimeout(() => process.exit(0), 50);
}
process.on('SIGTERM', close);
process.on('SIGINT', close);
// Its starter has gone, perhaps before this was listened for.
process.on('disconnect', close);
if (process.send && !process.connected) close();
