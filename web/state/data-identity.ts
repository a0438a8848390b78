import { dataHeader } from '../../contract/bays/live.ts';
import { setDraftsAside } from './drafts.ts';

/** Where a browser keeps which data its drafts were typed for. */
const place = 'suvok-data';

/** The data that this page shows, once the server has named them. */
let shown: string | undefined;

/** Headers that say for which data a request is meant: for others of the same numbers it is refused. */
export function headersOfData(headers: Record<string, string> = {}): Record<string, string> {
  return shown === undefined ? headers : { ...headers, [dataHeader]: shown };
}

/**
 * Called when the server has named the data that it serves. Where they are other data than this browser knew, what was
 * typed and not stored is set aside and the page is loaded anew.
 */
export function meetData(id: string, load: () => void = () => location.reload()): void {
  const before = shown ?? remembered();
  remember(id);
  if (before === undefined || before === id) {
    shown = id;
    return;
  }
  setDraftsAside();
  load();
}

function remembered(): string | undefined {
  try {
    return localStorage.getItem(place) ?? undefined;
  } catch {
    return undefined;
  }
}

function remember(id: string): void {
  try {
    localStorage.setItem(place, id);
  } catch {
    // A browser that stores nothing has no drafts either.
  }
}
