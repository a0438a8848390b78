import type { DeviceState } from '../../contract/bays/live.ts';

/** What people call the kinds of instruments. */
export const deviceKindWords: Record<DeviceState['kind'], string> = {
  'inertia-roller': 'inertia roller',
  'loaded-roller': 'loaded roller',
  hub: 'hub dyno',
  weather: 'weather station',
  'engine-logger': 'engine logger',
};
