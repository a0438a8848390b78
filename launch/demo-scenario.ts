import type { PauseReason } from '../contract/day.ts';

/** The invented shop's first days, played by the stand-ins through the recorder (no figure is typed in). */
export interface DemoJob {
  vehicle: string;
  owner: string;
  question: string;
  gear: string;
  /** The stand-in dyno that it stood on; the inertia roller unless said. */
  dyno?: 'inertia-roller' | 'loaded-roller' | 'hub';
  /** Readings of the dyno a second; 200 unless said: long runs need no more than they are looked at with. */
  rateHz?: number;
  /** Days before the scenario's last one, and when on that day the first pull was waited for (24-hour clock). */
  daysAgo: number;
  from: string;
  seed: number;
  setups: DemoSetup[];
  /** What is written in the job's file, by the names of the API. */
  brief?: Record<string, unknown>;
  bands?: { name: string; fromRpm: number; toRpm: number }[];
  limits?: { quantity: string; value: number; scale: string | null; reason: string; source: string }[];
  inspections?: { key: string; outcome: string; note: string; measured: number | null }[];
  fuel?: DemoFuel[];
  suspicions?: { cause: string; test: string; outcome: string; state: string }[];
  notes?: string[];
  end?:
    | { state: 'paused'; for: PauseReason; why: string; expectedInDays?: number }
    | { state: 'closed'; delivered: string | null; untested: string };
}

/** Speeds and loads to be held one after the other. */
export interface DemoHolds {
  speedsRpm: number[];
  loadsKpa: number[];
  dwellS: number;
}

export interface DemoSetup {
  /** Letter of the setup it was changed from, and what changed; the first setup has neither. */
  from?: string;
  change?: string;
  expectedKw?: number;
  /** What changed is the fuel table, as the setup before proposes it. */
  fuelTable?: true;
  pulls: DemoPull[];
  decision?: 'keep' | 'go back' | 'try further';
  why?: string;
  /** Words of its tune file. */
  file?: { name: string; content: string };
}

export interface DemoPull {
  /** Cool-down before the pull, minutes. */
  afterMin: number;
  /** No pull but a run of another kind. */
  kind?: 'idle' | 'cold-start' | 'transient' | 'cruise';
  /** No pull but a row of holds. */
  holds?: DemoHolds;
  note?: string;
  setAside?: string;
}

export interface DemoFuel {
  kind: 'arrived' | 'drained' | 'added' | 'measured';
  /** Before the day's first pull. */
  minutesBefore: number;
  litres?: number;
  ethanolPct?: number;
  name?: string;
}

const pulls = (count: number, afterMin: number): DemoPull[] => Array.from({ length: count }, () => ({ afterMin }));
const twin = { vehicle: 'Ostrel 990 twin', owner: 'J. Pellwick', gear: '5th' };
const kitCar = { vehicle: 'Brindle 1.0 kit car, three-cylinder turbo', owner: 'Fenmoor Hill Club', gear: '3rd' };
const coupe = { vehicle: 'Tarrow Six hill-climb coupé', owner: 'A. Sorrel', gear: '4th' };
const minibus = { vehicle: 'Hallam 2.2 diesel minibus', owner: 'Corrie Lines', gear: '4th' };
/** The part of its fuel table that a light foot uses. */
const cellsOfCoupe: DemoHolds = { speedsRpm: [2000, 2500, 3000, 3500, 4000], loadsKpa: [40, 55, 70, 85], dwellS: 4 };
const booked = { setups: [{ pulls: [] }], daysAgo: 1, from: '16:40', seed: 1 };

/** Oldest first; the last one with runs stays on the dyno. */
export const demoJobs: DemoJob[] = [
  {
    ...twin,
    question: 'What does it make with the road exhaust?',
    daysAgo: 210,
    from: '10:10',
    seed: 20,
    setups: [
      { pulls: pulls(3, 8), file: { name: 'ostrel-arrived.bin', content: 'twin, as it came in spring' } },
      { from: 'A', change: 'Ignition +1° above 7,000', pulls: pulls(2, 8), decision: 'keep', why: 'safe on 98 octane' },
    ],
    brief: { use: 'road, some track days', deliverables: 'report' },
    end: { state: 'closed', delivered: 'B', untested: 'cold start' },
  },
  {
    ...minibus,
    ...booked,
    question: 'Black smoke at full load',
    inspections: [{ key: 'intake', outcome: 'fail', note: 'hose split behind the charge cooler', measured: null }],
    suspicions: [{ cause: 'charge air leaks', test: 'pressurise the intake', outcome: 'hose replaced', state: 'confirmed' }], // prettier-ignore
    end: { state: 'closed', delivered: null, untested: 'full load after the new hose' },
  },
  {
    ...twin,
    question: 'Is there anything left above 9,000 before the season?',
    daysAgo: 2,
    from: '09:30',
    seed: 21,
    setups: [
      { pulls: pulls(3, 7), file: { name: 'ostrel-now.bin', content: 'twin, as it came in spring' } },
      { from: 'A', change: 'Ignition +2° above 7,000', expectedKw: 0.4, pulls: pulls(3, 7), decision: 'try further' },
      {
        from: 'B',
        change: 'Ignition +3° above 7,000',
        expectedKw: 1.5,
        pulls: [{ afterMin: 12, note: 'one step too far' }, { afterMin: 7 }],
        decision: 'go back',
        why: 'knocks above 9,500, nothing gained',
      },
      { from: 'B', change: 'Back to B', pulls: [] },
    ],
    brief: {
      use: 'hill climbs',
      target: 'something above 9,000',
      notWanted: 'a hole at 6,000',
      claimedValue: 92,
      claimedUnit: 'PS',
      claimedScale: 'crank',
      claimedSource: 'the seller',
    },
    bands: [{ name: 'out of hairpins', fromRpm: 5000, toRpm: 7500 }, { name: 'top', fromRpm: 8500, toRpm: 10400 }], // prettier-ignore
    limits: [
      { quantity: 'engineSpeed', value: 10800, scale: null, reason: 'valve springs', source: 'builder' },
      { quantity: 'knockRetard', value: 3, scale: null, reason: 'more than this is knock', source: 'us' },
    ],
    end: { state: 'paused', for: 'collection', why: '' },
  },
  {
    ...minibus,
    question: 'What does a gentler tune save on the school route?',
    dyno: 'loaded-roller',
    rateHz: 50,
    daysAgo: 3,
    from: '11:20',
    seed: 61,
    setups: [
      { pulls: [{ afterMin: 6, kind: 'cold-start' }, { afterMin: 10, kind: 'cruise' }, { afterMin: 4, kind: 'cruise' }] }, // prettier-ignore
      {
        from: 'A',
        change: 'Gentler tune file',
        pulls: [
          { afterMin: 6, kind: 'cruise' },
          { afterMin: 4, kind: 'cruise', note: 'owner feels it is less' },
        ],
        decision: 'go back',
        why: 'no saving shown',
      },
    ],
    brief: { use: 'school route', target: 'less fuel', notWanted: 'less pull with eleven aboard', dynoKind: 'loaded-roller' }, // prettier-ignore
    end: { state: 'paused', for: 'owner', why: 'thinks it over' },
  },
  {
    ...coupe,
    ...booked,
    question: 'Second key setting for wet hills',
    end: { state: 'paused', for: 'file', why: 'revision 4' },
  },
  {
    ...kitCar,
    ...booked,
    question: 'Does the smaller pulley pay?',
    end: { state: 'paused', for: 'part', why: 'the pulley, ordered', expectedInDays: 0 },
  },
  { ...twin, ...booked, question: 'Road check of the new tune' },
  {
    ...minibus,
    question: 'Exhaust temperature over the pass',
    dyno: 'loaded-roller',
    daysAgo: 1,
    from: '08:50',
    seed: 31,
    setups: [
      { pulls: pulls(3, 10) },
      {
        from: 'A',
        change: 'Injection end 2° earlier',
        expectedKw: 0.8,
        pulls: pulls(3, 10),
        decision: 'keep',
        why: 'more, and no hotter',
      },
    ],
    brief: { use: 'school route over the pass', target: 'cooler before the turbine', notWanted: 'smoke', dynoKind: 'loaded-roller' }, // prettier-ignore
    bands: [{ name: 'the pass', fromRpm: 1800, toRpm: 3000 }],
    limits: [{ quantity: 'exhaustTemperature', value: 880, scale: null, reason: 'before the turbine', source: 'us' }],
  },
  {
    ...minibus,
    ...booked,
    question: 'Does it pull the pass with eleven aboard?',
    end: { state: 'paused', for: 'overnight', why: 'cold start in the morning', expectedInDays: 2 },
    brief: { use: 'mountain route, full', target: 'third gear over the pass', notWanted: 'smoke', dynoKind: 'loaded-roller' }, // prettier-ignore
    bands: [{ name: 'the pass', fromRpm: 1800, toRpm: 3000 }],
    limits: [
      { quantity: 'torque', value: 380, scale: 'crank', reason: 'gearbox', source: 'maker' },
      { quantity: 'exhaustTemperature', value: 750, scale: null, reason: 'before the turbine', source: 'us' },
    ],
  },
  {
    ...kitCar,
    ...booked,
    question: 'Booked for the hub dyno: what does it make as it comes?',
    brief: { use: 'sprints', dynoKind: 'hub', claimedValue: 148, claimedUnit: 'hp', claimedScale: 'crank', claimedSource: 'last year’s sheet, another dyno' }, // prettier-ignore
    inspections: [
      { key: 'oil', outcome: 'ok', note: '', measured: null },
      { key: 'battery', outcome: 'ok', note: '', measured: 12.7 },
      { key: 'boost-hoses', outcome: 'fail', note: 'clamp at the throttle body loose', measured: null },
    ],
    fuel: [
      { kind: 'arrived', minutesBefore: 90, litres: 12, ethanolPct: 8, name: '98 octane' },
      { kind: 'added', minutesBefore: 40, litres: 24, ethanolPct: 85, name: 'E85' },
      { kind: 'measured', minutesBefore: 30, ethanolPct: 31 },
      { kind: 'measured', minutesBefore: 12, ethanolPct: 48 },
    ],
    suspicions: [{ cause: 'weak fuel pump', test: 'log pressure at full load', outcome: '', state: 'open' }],
    notes: ['owner wants to watch; strap marks on the left shaft from last time'],
  },
  {
    ...coupe,
    question: 'Stumbles at light throttle out of hairpins',
    dyno: 'loaded-roller',
    rateHz: 50,
    daysAgo: 1,
    from: '10:40',
    seed: 51,
    setups: [
      {
        pulls: [
          { afterMin: 12, holds: cellsOfCoupe, note: 'surges at 2,500 on a light foot' },
          { afterMin: 4, kind: 'idle' },
          { afterMin: 2, kind: 'idle' },
          { afterMin: 4, kind: 'transient' },
          { afterMin: 2, kind: 'transient' },
        ],
      },
      { from: 'A', change: 'fuel table revision 1', fuelTable: true, pulls: [{ afterMin: 6, holds: cellsOfCoupe }, { afterMin: 4, kind: 'idle' }, { afterMin: 2, kind: 'idle' }, { afterMin: 4, kind: 'transient' }, { afterMin: 2, kind: 'transient' }], decision: 'try further' }, // prettier-ignore
      { from: 'B', change: 'fuel table revision 2', fuelTable: true, pulls: [] },
    ],
    brief: { use: 'hill climbs, and the road to them', target: 'clean at light throttle', notWanted: 'more fuel on the road', dynoKind: 'loaded-roller' }, // prettier-ignore
    bands: [{ name: 'out of corners', fromRpm: 3000, toRpm: 4500 }],
  },
  {
    ...kitCar,
    question: 'How much boost does the small turbo pay for?',
    dyno: 'hub',
    daysAgo: 1,
    from: '13:10',
    seed: 41,
    setups: [
      { pulls: pulls(3, 9) },
      {
        from: 'A',
        change: 'Boost +12 kPa',
        expectedKw: 5,
        pulls: pulls(3, 9),
        decision: 'try further',
        why: 'no knock',
      },
      { from: 'B', change: 'Boost +12 kPa', expectedKw: 3.5, pulls: pulls(3, 9), decision: 'try further' },
      { from: 'C', change: 'Boost +12 kPa', expectedKw: 3.5, pulls: pulls(2, 9) },
      { from: 'C', change: 'Ignition +1°', pulls: pulls(2, 9), decision: 'try further' },
      { from: 'B', change: 'Ignition +2°', pulls: pulls(2, 9) },
    ],
    brief: { use: 'sprints', target: 'the gentlest setting that keeps the gain', dynoKind: 'hub' },
    bands: [{ name: 'out of chicanes', fromRpm: 2500, toRpm: 4000 }, { name: 'straights', fromRpm: 4500, toRpm: 6200 }], // prettier-ignore
    limits: [
      { quantity: 'boost', value: 125, scale: null, reason: 'head gasket', source: 'builder' },
      { quantity: 'torque', value: 280, scale: 'crank', reason: 'clutch', source: 'owner' },
    ],
  },
  {
    ...coupe,
    question: 'Does the short intake pay above 5,000?',
    daysAgo: 0,
    from: '08:20',
    seed: 8,
    setups: [
      {
        pulls: [
          { afterMin: 8 },
          { afterMin: 8 },
          { afterMin: 1.5, note: 'phone rang, went again at once', setAside: 'started hot, 90 s after A2' },
          { afterMin: 14 },
          { afterMin: 8 },
        ],
        file: { name: 'tarrow-arrived.bin', content: 'coupe, as it came' },
      },
      {
        from: 'A',
        change: 'Ignition +1.5° above 4,000',
        expectedKw: 0.8,
        pulls: pulls(3, 8),
        decision: 'keep',
        why: 'no knock, gains all along',
        file: { name: 'tarrow-r2.bin', content: 'coupe, ignition up' },
      },
      {
        from: 'B',
        change: 'Intake trumpets 40 mm shorter',
        expectedKw: 2,
        pulls: [{ afterMin: 14 }, { afterMin: 8, note: 'duller below 4,000, sings above' }, { afterMin: 8 }],
      },
      { from: 'B', change: 'Plug gap 0.7 mm', pulls: [] },
    ],
    brief: {
      use: 'hill climbs, 40 s flat out',
      target: '100 kW at the wheels',
      notWanted: 'less below 4,000',
      claimedValue: 150,
      claimedUnit: 'hp',
      claimedScale: 'crank',
      claimedSource: 'the builder',
      deliverables: 'report and both files',
    },
    bands: [{ name: 'out of corners', fromRpm: 3000, toRpm: 4500 }, { name: 'flat out', fromRpm: 5000, toRpm: 6800 }], // prettier-ignore
    limits: [
      { quantity: 'engineSpeed', value: 7100, scale: null, reason: 'rod bolts', source: 'builder' },
      { quantity: 'torque', value: 215, scale: 'crank', reason: 'gearbox', source: 'owner' },
      { quantity: 'lambda', value: 0.93, scale: null, reason: 'leaner is a risk on petrol', source: 'us' },
    ],
    inspections: [
      { key: 'oil', outcome: 'ok', note: '', measured: null },
      { key: 'tyre-pressure', outcome: 'ok', note: '', measured: 235 },
      { key: 'straps', outcome: 'ok', note: 'checked again after A3', measured: null },
    ],
    fuel: [{ kind: 'arrived', minutesBefore: 30, litres: 28, ethanolPct: 9, name: '98 octane' }],
    notes: ['door open, wind on the inlet from A4 on'],
  },
];
