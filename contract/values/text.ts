/** Characters that no database and no other program takes: NUL, and halves of a pair (U+D800 to U+DFFF by themselves). */
const unstorable = /[\u0000\p{Cs}]/u;
/** Control and direction characters: never seen, and what is seen may read otherwise than it is. Tab and line end stay. */
const unseen = /[\u0001-\u0008\u000B-\u001F\u007F-\u009F\u200E\u200F\u202A-\u202E\u2066-\u2069\uFEFF]/gu;
/** Deeper than any message or request. */
const mostDepth = 20;

/** Whether a text can be stored and sent on. */
export function isStorable(text: string): boolean {
  return !unstorable.test(text);
}

/** A text without characters that are never seen; line ends become one kind. */
export function withoutUnseen(text: string): string {
  return text.replace(/\r\n?/g, '\n').replace(unseen, '');
}

/** Something that came in cannot be taken as it is. */
export class UncleanInput extends Error {
  constructor(
    message: string,
    /** Where it stands, such as `items.name`; empty at the top. */
    readonly field: string,
  ) {
    super(message);
  }
}

/**
 * The one place that all text from outside passes: what cannot be stored is
 * refused, what is never seen is taken out. Form and length are the schemas'.
 *
 * @param value of JSON
 * @throws UncleanInput
 */
export function cleanJson(value: unknown, field = '', depth = 0): unknown {
  if (depth > mostDepth) throw new UncleanInput('it is nested deeper than anything that is asked for', field);
  if (typeof value === 'string') {
    if (!isStorable(value)) throw new UncleanInput('it holds characters that cannot be stored', field);
    return withoutUnseen(value);
  }
  if (Array.isArray(value)) return value.map((item) => cleanJson(item, field, depth + 1));
  // A file's bytes are no text.
  if (value === null || typeof value !== 'object' || ArrayBuffer.isView(value)) return value;
  const entries = Object.entries(value).map(([name, item]): [string, unknown] => {
    if (!isStorable(name)) throw new UncleanInput('it holds characters that cannot be stored', field);
    return [name, cleanJson(item, field ? `${field}.${name}` : name, depth + 1)];
  });
  return Object.fromEntries(entries);
}

/** What a text says as JSON; undefined where it is none. */
export function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
