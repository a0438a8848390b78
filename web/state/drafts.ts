/** What was typed and is not stored yet, so that a lost connection, or a closed page, loses nothing. */
const prefix = 'suvok-draft:';

export function draftOf(place: string): string | null {
  try {
    return localStorage.getItem(prefix + place);
  } catch {
    return null;
  }
}

/** Keeps a draft; null once it is stored. */
export function keepDraft(place: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(prefix + place);
    else localStorage.setItem(prefix + place, text);
  } catch {
    // A browser that keeps nothing still holds what is in the field.
  }
}
