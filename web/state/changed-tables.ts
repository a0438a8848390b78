/**
 * Tables that this page's own acts have changed and whose data have not been fetched anew yet; undefined where an
 * answer did not name them.
 */
let changed: Set<string> | undefined = new Set();

/** Takes down what the server says that an act has changed. @param header null where it does not say */
export function noteChanged(header: string | null): void {
  if (!header) changed = undefined;
  else for (const table of header.split(',')) changed?.add(table);
}

/** Hands over what was noted since; undefined where it may be anything. */
export function takeChanged(): Set<string> | undefined {
  const noted = changed;
  changed = new Set();
  return noted;
}
