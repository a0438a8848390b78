import type { LoggedEngine, RunLog } from '../log/pull/run-log.ts';
import { chance as chanceFrom, normal } from './chance.ts';

// Taken out once: Jest looks a global up anew at every use.
const { max, min, round, sin } = Math;

/** What goes wrong in a logged pull, each called as the event that finds it. */
export const logFaults = [
  'knock',
  'lean',
  'rich',
  'fuel-pressure-sag',
  'injector-duty',
  'oil-pressure-low',
  'boost-overshoot',
  'boost-taper',
  'boost-cut',
  'sensor-ceiling',
  'sensor-dead',
  'low-battery',
  'relearning',
  'fuel-trim',
  'ethanol-differs',
  'octane-moving',
  'rail-pressure-sag',
] as const;
export type LogFault = (typeof logFaults)[number];

export type LoggedKind = 'turbo' | 'plain' | 'diesel' | 'blower';

/**
 * A logged pull with lead-in and coast: a turbocharged or naturally aspirated
 * petrol engine, one with a centrifugal blower, or a diesel, drawn by the
 * seed, every sensor with its noise and resolution; healthy, or with one fault.
 * @param size of the fault: 1, or a half for one that is hard to find
 */
export function loggedRun(
  seed: number,
  fault?: LogFault,
  kind: LoggedKind = (['turbo', 'plain', 'diesel'] as const)[seed % 3]!,
  size = 1,
): RunLog {
  const random = chanceFrom(seed * 7919 + 13);
  const scatter = normal(random);
  const between = (low: number, high: number) => low + (high - low) * random();
  const needsBoost = fault?.startsWith('boost') || fault === 'sensor-ceiling';
  const engineKind = needsBoost ? 'turbo' : fault && kind === 'diesel' ? 'turbo' : kind;
  const boosted = engineKind !== 'plain';
  const rateHz = between(20, 120);
  const lead = between(1, 3);
  const lasts = between(6, 12);
  const count = round((lead + lasts + 3) * rateHz);
  const time = Float64Array.from({ length: count }, (_, index) => index / rateHz);
  const [from, to] = engineKind === 'diesel' ? [1500, 4200] : [between(2000, 2600), between(6000, 7200)];
  const engineSpeedRpm = time.map((at) => {
    const share = min(1, max(0, (at - lead) / lasts));
    const coast = max(0, at - lead - lasts);
    return from + (to - from) * share ** 0.92 - coast * 350 + 4 * scatter();
  });
  const share = (index: number) => min(1, max(0, (time[index]! - lead) / lasts));
  const pulling = (index: number) => time[index]! >= lead && time[index]! <= lead + lasts;
  const faultFrom = between(0.35, 0.6);
  const faulty = (index: number) => pulling(index) && share(index) > faultFrom;
  const ethanolPct = engineKind === 'diesel' ? null : between(0, 1) < 0.3 ? 80 : 8;
  const plateau = between(70, 130);
  // A centrifugal blower's pressure grows with the square of its speed, to the end.
  const climbing = (index: number) => plateau * (engineSpeedRpm[index]! / to) ** 2;
  const target = (index: number) =>
    engineKind === 'blower' ? climbing(index) : plateau * min(1, 0.25 + 2.2 * share(index));
  const read = (digits: number, deviation: number, value: (index: number) => number) =>
    time.map((_, index) => round((value(index) + deviation * scatter()) * 10 ** digits) / 10 ** digits);
  const boost = (index: number): number => {
    if (!pulling(index)) return 5;
    const reached = target(index) * (1 + 0.02 * sin(9 * share(index)));
    if (fault === 'boost-overshoot' && share(index) > 0.33 && share(index) < 0.42)
      return reached * (1 + size * between(0.16, 0.24));
    if (fault === 'boost-taper' && share(index) > 0.65) return reached * (1 - size * 0.75 * (share(index) - 0.65));
    if (fault === 'boost-cut' && faulty(index)) return reached * (1 - size * 0.65);
    return reached;
  };
  const aim = engineKind === 'plain' ? 0.87 : ethanolPct === 80 ? 0.83 : 0.81;
  const lambda = (index: number): number => {
    if (!pulling(index)) return 1;
    if (fault === 'lean' && faulty(index)) return aim * (1 + size * 0.13);
    if (fault === 'rich' && faulty(index)) return aim * (1 - size * 0.14);
    return aim * (1 + 0.012 * sin(20 * share(index)));
  };
  const duty = between(55, 74);
  // A generator of its own: the earlier channels stay as they were.
  const returnless = chanceFrom(seed * 15485863 + 11)() < 0.35;
  const channels = new Map<string, Float64Array>([
    ['throttle', read(1, 0.2, (index) => (pulling(index) ? 99 : 12))],
    ['intakeTemperature', read(1, 0.2, (index) => 32 + 6 * share(index))],
    ['batteryVoltage', read(2, 0.05, () => (fault === 'low-battery' ? 13.9 - size * between(1.6, 2) : 13.9))],
    [
      'oilPressure',
      read(
        0,
        4,
        (index) => (220 + 180 * share(index)) * (fault === 'oil-pressure-low' && faulty(index) ? 1 - size * 0.5 : 1),
      ),
    ],
  ]);
  if (engineKind !== 'diesel') {
    channels.set('lambda', fault === 'sensor-dead' ? time.map(() => 0.85) : read(3, 0.006, lambda));
    if (between(0, 1) < 0.6)
      channels.set(
        'lambdaTarget',
        read(2, 0, (index) => (pulling(index) ? aim : 1)),
      );
    channels.set(
      'knockRetard',
      read(1, 0, (index) => {
        if (fault === 'knock' && faulty(index) && share(index) < faultFrom + 0.25) return size * between(2, 5.5);
        // A controller listens now and then, for a moment.
        return pulling(index) && random() < 0.01 ? 0.8 : 0;
      }),
    );
    channels.set(
      'injectorDuty',
      read(1, 0.6, (index) =>
        fault === 'injector-duty' && faulty(index) ? 90 + size * between(3, 7) : 8 + duty * share(index) ** 0.8,
      ),
    );
    channels.set(
      'fuelPressure',
      read(0, 3, (index) => {
        const base = 300 + (boosted && !returnless ? boost(index) - 5 : 0);
        return fault === 'fuel-pressure-sag' && faulty(index)
          ? base - size * (130 * (share(index) - faultFrom) + 35)
          : base;
      }),
    );
    channels.set(
      'fuelTrimLong',
      read(1, 0.2, (index) => (fault === 'relearning' && pulling(index) ? size * 6 * share(index) : 1.5)),
    );
  } else
    channels.set(
      'lambda',
      read(2, 0.02, (index) => (pulling(index) ? 1.3 : 4)),
    );
  if (boosted) {
    const ceiling = fault === 'sensor-ceiling' ? plateau * (1 - size * 0.07) : Infinity;
    channels.set(
      'boost',
      read(1, 0.8, boost).map((value) => min(ceiling, value)),
    );
    if (between(0, 1) < 0.6 && fault !== 'sensor-ceiling')
      channels.set(
        'boostTarget',
        read(0, 0, (index) => (pulling(index) ? target(index) : 0)),
      );
  }
  // What was added later draws from a generator of its own, so that the earlier channels stay as they were.
  const more = chanceFrom(seed * 104729 + 5);
  if (engineKind !== 'diesel') {
    channels.set(
      'fuelTrimShort',
      read(1, 0.5, (index) => (fault === 'fuel-trim' && pulling(index) ? size * (seed % 2 === 0 ? 13 : -16) : 0.6)),
    );
    if (ethanolPct !== null && (more() < 0.5 || fault === 'ethanol-differs')) {
      const content =
        ethanolPct + 3 * (more() - 0.5) + (fault === 'ethanol-differs' ? size * (ethanolPct > 50 ? -12 : 9) : 0);
      channels.set(
        'ethanolContent',
        read(1, 0.4, () => content),
      );
    }
    if (more() < 0.5 || fault === 'octane-moving') {
      const learned = 40 + 50 * more();
      channels.set(
        'learnedOctane',
        read(1, 0.15, (index) => learned - (fault === 'octane-moving' ? size * 7 * share(index) : 0)),
      );
    }
  }
  if (engineKind === 'diesel' || more() < 0.4 || fault === 'rail-pressure-sag') {
    const [low, top] = engineKind === 'diesel' ? [90, 165] : [9, 19];
    const wanted = (index: number) => low + (top - low) * min(1, 3 * share(index));
    const lost = (index: number) =>
      fault === 'rail-pressure-sag' && faulty(index) ? size * 0.28 * (share(index) - faultFrom + 0.35) : 0;
    channels.set(
      'railPressure',
      read(1, 0.012 * top, (index) => wanted(index) * (1 - lost(index))),
    );
    if (more() < 0.5) channels.set('railPressureTarget', read(1, 0, wanted));
  }
  const engine: LoggedEngine = {
    fuelRegulation: null,
    ignition: engineKind === 'diesel' ? 'compression' : 'spark',
    boosted,
    ethanolPct,
    limits: {},
  };
  return { time, engineSpeedRpm, channels, startS: lead + 0.4, endS: lead + lasts - 0.05, engine };
}
