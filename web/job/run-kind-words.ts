import { kindNames } from '../../core/wording/kind-words.ts';
import type { RunKind } from '../../contract/instruments/recording.ts';

/** How each kind of run is called, and what it is for. */
export const runKindWords: Record<RunKind, { name: string; what: string }> = {
  power: { name: 'power run', what: 'full throttle from start to lift; counted' },
  conditioning: { name: 'conditioning', what: 'a sweep to warm up or relearn; never in figures' },
  step: { name: kindNames.step, what: 'set speeds held one after the other, under load' },
  'part-load': { name: 'part load', what: 'cells of the fuel table, driven one by one' },
  idle: { name: kindNames.idle, what: 'out of gear, left to idle: how steady it is' },
  'cold-start': { name: kindNames['cold-start'], what: 'recorded from before the starter turns' },
  transient: { name: kindNames.transient, what: 'a held speed, then full throttle: how soon torque is there' },
  cruise: { name: kindNames.cruise, what: 'one speed at one wheel power: fuel, before and after' },
  'road-check': {
    name: kindNames['road-check'],
    what: 'a log from the road: times between speeds, temperatures, knock',
  },
  'coast-down': { name: 'coast-down', what: 'out of gear from top speed, for the losses' },
  check: { name: 'check run', what: 'the dyno itself, with the same car each time' },
};
