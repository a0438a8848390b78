import { nextBayName } from '../../contract/bays/bay-requests.ts';
import { isDynoKind, type Hello } from '../../contract/instruments/bench-link.ts';
import { mostBays } from '../../contract/values/parts.ts';

/** A bay as an instrument that comes finds it. */
export interface FoundBay {
  bay: number;
  name: string;
  /** Another dyno that it has: none so far, one that is away, or one that is there or may be back in a moment. */
  otherDyno: 'none' | 'away' | 'there';
}

/** A bay that there is, one to be made, or none. */
export type Place = { bay: number } | { newBay: string } | null;

/**
 * Where an instrument stands that has just said hello. A dyno always has a bay
 * of its own: two of them would record each other's car. A logger whose bay
 * nobody knows is placed only where there is no choice; a weather station
 * without a bay serves all of them.
 *
 * @param settled the bay that the shop, or an earlier hello, settled
 */
export function placeOf(
  { kind, bay: said }: Pick<Hello, 'kind' | 'bay'>,
  settled: number | null,
  bays: readonly FoundBay[],
): Place {
  const isDyno = isDynoKind(kind);
  const takes = (found: FoundBay | undefined): found is FoundBay =>
    found !== undefined && !(isDyno && found.otherDyno === 'there');
  const own = bays.find(({ bay }) => bay === settled);
  if (takes(own)) return { bay: own.bay };
  const named = bays.find(({ name }) => name.toLowerCase() === said?.toLowerCase());
  if (takes(named)) return { bay: named.bay };
  const room = bays.length < mostBays;
  if (said !== undefined && !named && room && kind !== 'weather') return { newBay: said };
  if (kind === 'weather') return null;
  const [first, ...others] = bays;
  if (!isDyno) return first && others.length === 0 ? { bay: first.bay } : null;
  const free = bays.find(({ otherDyno }) => otherDyno === 'none');
  if (free) return { bay: free.bay };
  // A shop with one bay that has got another dyno.
  if (first && others.length === 0 && first.otherDyno === 'away') return { bay: first.bay };
  return room ? { newBay: nextBayName(bays) } : null;
}
