/** What was typed and is not stored yet, so that a lost connection, or a closed page, loses nothing. */
const prefix = 'suvok-draft:';
/** What was typed for data that were replaced since. */
const asidePrefix = 'suvok-set-aside:';

export function draftOf(place: string): string | null {
  return withStorage((storage) => storage.getItem(prefix + place)) ?? null;
}

/** Keeps a draft; null once it is stored. */
export function keepDraft(place: string, text: string | null): void {
  withStorage((storage) => {
    if (text === null) storage.removeItem(prefix + place);
    else storage.setItem(prefix + place, text);
  });
}

/**
 * The data were replaced. Drafts are named by numbers, which may be another job's now: they are set aside, and none is
 * lost.
 */
export function setDraftsAside(): void {
  withStorage((storage) => {
    for (const key of keysOf(storage, prefix)) {
      storage.setItem(asidePrefix + key.slice(prefix.length), storage.getItem(key) ?? '');
      storage.removeItem(key);
    }
  });
}

/** Texts that were set aside. */
export function draftsSetAside(): string[] {
  return withStorage((storage) => keysOf(storage, asidePrefix).map((key) => storage.getItem(key) ?? '')) ?? [];
}

/** Throws away what was set aside. */
export function forgetDraftsSetAside(): void {
  withStorage((storage) => {
    for (const key of keysOf(storage, asidePrefix)) storage.removeItem(key);
  });
}

const keysOf = (storage: Storage, prefix: string) =>
  Array.from({ length: storage.length }, (_, at) => storage.key(at) ?? '').filter((key) => key.startsWith(prefix));

/** Where the browser stores nothing, the field itself still holds the text. */
function withStorage<T>(work: (storage: Storage) => T): T | undefined {
  try {
    return work(localStorage);
  } catch {
    return undefined;
  }
}
