/** What a spreadsheet takes for the beginning of a formula. */
const formula = /^[=+\-@\t\r]/;

/** A heading as it stands in a file: one that a spreadsheet would take for a formula begins with an apostrophe. */
export const safeHeading = (text: string): string => (formula.test(text) ? `'${text}` : text);

/** A heading as it was before it was made safe. */
export const plainHeading = (text: string): string =>
  text.startsWith("'") && formula.test(text.slice(1)) ? text.slice(1) : text;
