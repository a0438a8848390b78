import { booked, coupe, kitCar, minibus, pulls, twin, type DemoJob } from './job.ts';

/** Jobs of the days before the last two, and what is booked; the oldest first. */
export const jobsBefore: readonly DemoJob[] = [
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
    signed: ['Running on the dyno', 'Settings not for public roads'],
    charges: [
      { what: 'Dyno', per: 'dyno hour', quantity: 1.25, amount: 95 },
      { what: 'Tune file', per: 'tune file', quantity: 1, amount: 120, setup: 'B' },
    ],
    end: { state: 'closed', delivered: 'B', untested: 'cold start' },
  },
  {
    ...minibus,
    ...booked,
    question: 'Black smoke at full load',
    inspections: [{ key: 'intake', outcome: 'fail', note: 'hose split behind the charge cooler', measured: null }],
    suspicions: [
      { cause: 'charge air leaks', test: 'pressurise the intake', outcome: 'hose replaced', state: 'confirmed' },
    ],
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
    bands: [
      { name: 'out of hairpins', fromRpm: 5000, toRpm: 7500 },
      { name: 'top', fromRpm: 8500, toRpm: 10400 },
    ],
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
      {
        pulls: [
          { afterMin: 6, kind: 'cold-start' },
          { afterMin: 10, kind: 'cruise' },
          { afterMin: 4, kind: 'cruise' },
        ],
      },
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
    brief: {
      use: 'school route',
      target: 'less fuel',
      notWanted: 'less pull with eleven aboard',
      dynoKind: 'loaded-roller',
    },
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
];
