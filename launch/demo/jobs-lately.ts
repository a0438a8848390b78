import { booked, coupe, kitCar, minibus, pulls, type DemoHolds, type DemoJob } from './job.ts';

/** The part of its fuel table that a light foot uses. */
const cellsOfCoupe: DemoHolds = { speedsRpm: [2000, 2500, 3000, 3500, 4000], loadsKpa: [40, 55, 70, 85], dwellS: 4 };

/** Jobs of yesterday and of the last day; the last one stays on the dyno. */
export const jobsLately: readonly DemoJob[] = [
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
        forecasts: [
          { who: 'Mara', quantity: 'peak power', low: 80, high: 95 },
          { who: 'Ivo', quantity: 'boost at', fromRpm: 4000, low: 90, high: 110 },
        ],
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
    targets: [
      { quantity: 'peak power', fromRpm: null, toRpm: null, value: 115, scale: 'crank' },
      { quantity: 'boost at', fromRpm: 4000, toRpm: null, value: 100, scale: null },
    ],
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
        forecasts: [
          { who: 'Mara', quantity: 'peak power', low: 97, high: 99 },
          { who: 'Ivo', quantity: 'peak power', low: 100, high: 100 },
        ],
        pulls: [{ afterMin: 14 }, { afterMin: 8, note: 'duller below 4,000, sings above' }, { afterMin: 8 }],
      },
      {
        from: 'B',
        change: 'Plug gap 0.7 mm',
        expectedKw: 0.3,
        forecasts: [{ who: 'Mara', quantity: 'peak power', low: 95, high: 96.5 }],
        pulls: [],
      },
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
    targets: [
      { quantity: 'peak power', fromRpm: null, toRpm: null, value: 100, scale: 'wheels' },
      { quantity: 'mean power', fromRpm: 3000, toRpm: 4500, value: 64, scale: 'wheels' },
    ],
    signed: ['Running on the dyno'],
    charges: [{ what: 'Intake trumpets', per: 'piece', quantity: 1, amount: 184, setup: 'C' }],
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
