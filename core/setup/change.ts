/** A part of a change that can be computed with. Other words of a change stay words. */
export type ChangeItem =
  { kind: 'ignition'; deltaDeg: number; aboveRpm?: number } | { kind: 'intake-length'; deltaMm: number };

const number = '([+−-]?\\s*\\d+(?:[.,]\\d+)?)';
const ignition = new RegExp(
  `ignition\\s*${number}\\s*(?:°|deg|degrees?)?(?:\\s*(?:above|from|over)\\s*(\\d[\\d,. ]*))?`,
  'i',
);
const intake = new RegExp(`(?:intake|trumpets?|runners?)\\D*?${number}\\s*mm\\s*(shorter|longer)?`, 'i');

/**
 * Reads the numeric items out of a change written in a line, such as
 * `ignition +1.5° above 4,000` or `intake trumpets 40 mm shorter`.
 * @returns the items found, in this order; empty when the line holds none that is known
 */
export function changeItems(line: string): ChangeItem[] {
  const items: ChangeItem[] = [];
  const spark = ignition.exec(line);
  if (spark) {
    const aboveRpm = spark[2] === undefined ? undefined : Number(spark[2].replace(/\D/g, ''));
    items.push({ kind: 'ignition', deltaDeg: signedNumber(spark[1]!), ...(aboveRpm ? { aboveRpm } : {}) });
  }
  const length = intake.exec(line);
  if (length) {
    const amount = signedNumber(length[1]!);
    const shorter = length[2]?.toLowerCase() === 'shorter';
    items.push({ kind: 'intake-length', deltaMm: shorter ? -Math.abs(amount) : amount });
  }
  return items;
}

function signedNumber(text: string): number {
  return Number(text.replace(/\s/g, '').replace('−', '-').replace(',', '.'));
}
