import type { KnownChannel } from '../recording/channels.ts';
import { Refusal } from '../refusal.ts';
import type { DrumPlace, DynoKind, DynoProfile } from './dyno-profile.ts';

/** How a person calls it. */
export const drumNames: Readonly<Record<DrumPlace, string>> = {
  left: 'left',
  right: 'right',
  front: 'front',
  rear: 'rear',
  frontLeft: 'front left',
  frontRight: 'front right',
  rearLeft: 'rear left',
  rearRight: 'rear right',
};

/** The channels of one drum by itself. */
interface DrumChannels {
  place: DrumPlace;
  speed: KnownChannel;
  torque: KnownChannel;
}

const drum = (kind: 'hub' | 'roller', place: DrumPlace): DrumChannels => {
  const suffix = `${place.charAt(0).toUpperCase()}${place.slice(1)}`;
  return { place, speed: `${kind}Speed${suffix}` as KnownChannel, torque: `absorberTorque${suffix}` as KnownChannel };
};

/** The sets of drums that a dyno can have beside a single one. */
export const drumSets: Readonly<Record<'hub pair' | 'four hubs' | 'two axles', readonly DrumChannels[]>> = {
  'hub pair': [drum('hub', 'left'), drum('hub', 'right')],
  'four hubs': [drum('hub', 'frontLeft'), drum('hub', 'frontRight'), drum('hub', 'rearLeft'), drum('hub', 'rearRight')],
  'two axles': [drum('roller', 'front'), drum('roller', 'rear')],
};

/**
 * The drums that a set of channels tells of, each by itself.
 * @returns undefined for a dyno with one drum, or whose channels tell of one
 * @throws Refusal where some of a set are missing, with their names
 */
export function drumsIn(names: readonly string[], kind: DynoKind): readonly DrumChannels[] | undefined {
  const has = (name: string) => names.includes(name);
  const { 'hub pair': pair, 'four hubs': four, 'two axles': axles } = drumSets;
  const set = (kind === 'hub' ? [pair, four] : [axles]).find((drums) => drums.some(({ speed }) => has(speed)));
  if (!set) return undefined;
  const needed = set.flatMap(({ speed, torque }) => (kind === 'inertia-roller' ? [speed] : [speed, torque]));
  const missing = needed.filter((name) => !has(name));
  if (missing.length > 0) {
    const what = set === four ? 'of four hubs' : set === pair ? 'of both hubs' : 'of two axles';
    throw new Refusal(
      `A recording ${what} needs ${spoken(needed)}; ${spoken(missing)} ${missing.length === 1 ? 'is' : 'are'} not there.`,
    );
  }
  return set;
}

/** The same for whoever only looks: undefined too where a set is not whole. */
export function wholeDrums(names: readonly string[], kind: DynoKind): readonly DrumChannels[] | undefined {
  try {
    return drumsIn(names, kind);
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

const spoken = (names: readonly string[]) =>
  names.length === 1 ? names[0]! : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** Inertia of one drum, kg·m². */
export function drumInertiaKgM2(dyno: DynoProfile, place: DrumPlace | undefined): number {
  const own = place && dyno.drumInertiaKgM2?.[place];
  if (own !== undefined) return own;
  return place === 'right' ? (dyno.rightInertiaKgM2 ?? dyno.inertiaKgM2) : dyno.inertiaKgM2;
}

/** The drums of one axle. */
export type Axle = 'front' | 'rear';
export const axleOf = (place: DrumPlace): Axle | undefined =>
  place.startsWith('front') ? 'front' : place.startsWith('rear') ? 'rear' : undefined;

/** The drums of one side of the car. */
export const sideOf = (place: DrumPlace): 'left' | 'right' | undefined =>
  /left$/i.test(place) ? 'left' : /right$/i.test(place) ? 'right' : undefined;

/** How the power of several drums can be put together for a look. */
export const drumGroupings = ['wheel', 'axle', 'side'] as const;
export type DrumGrouping = (typeof drumGroupings)[number];

/** The group that a drum belongs to; undefined where a grouping does not apply to it. */
export function groupOf(place: DrumPlace, grouping: DrumGrouping): DrumPlace | undefined {
  return grouping === 'wheel' ? place : grouping === 'axle' ? axleOf(place) : sideOf(place);
}

/** The groupings that apply to these drums: by wheel where axles and sides are both told apart. */
export function groupingsOf(places: readonly DrumPlace[]): readonly DrumGrouping[] {
  return drumGroupings.filter((grouping) =>
    places.every((place) => (grouping === 'wheel' ? axleOf(place) && sideOf(place) : groupOf(place, grouping))),
  );
}
