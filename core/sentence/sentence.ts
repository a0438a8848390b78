import type { PhraseBook } from '../language/phrase-book.ts';
import { halfWidthText } from '../units/spoken.ts';
import { differenceDigits } from '../units/difference-digits.ts';
import { digitsIn, figureIn, keptUnits, toldIn, withUnit, type Told, type Units } from '../units/told-units.ts';

/** A figure within a sentence, in the unit that it is kept in; each reader is told it in a unit of their own. */
export interface Quantity {
  value: number;
  /** As in core/units/told-units.ts: `λ` for a mixture, `K` for a difference of temperatures. */
  unit: string;
  /** Stoichiometric ratio of the fuel that was burnt, where it is a mixture. */
  stoichiometric?: number | undefined;
  /** Its unit is said by the figure after it: `15 to 35 °C`. */
  unitFollows?: true;
  /** A mixture that is named by what it is told in: `λ 0.92`, `AFR 13.5`. */
  named?: true;
  /**
   * A difference with its sign; half of an interval, which is never nothing; or the level of an item with its sign,
   * or the size of a step of one, both without noughts at the end.
   */
  as?: 'difference' | 'half-width' | 'level' | 'step';
  /** A difference and half of its interval know one another, so that both have the digits that show whether nothing lies between. */
  interval?: { difference: number; halfWidth: number };
  /** Digits after the point that it is written with at least; of a step, those that it is worth as it is kept. */
  digits?: number;
}

/** What was said, with its figures still as quantities. Plain, so that a worker can hand it over. */
interface Said {
  /** The words between the parts: one more than these. */
  words: readonly string[];
  parts: readonly (Sentence | Quantity)[];
}

/** A sentence, or a part of one. It is a string where no figure in it depends on who reads. */
export type Sentence = string | Said;

/** Whose units a sentence is written in. */
export interface Reader extends Units {
  /** For mixtures that do not tell the ratio of their own fuel. */
  stoichiometric?: number | undefined;
  /** What stands between a figure and its unit; one that does not break at a line's end, for a screen. */
  space?: string | undefined;
  /** English where there is none. */
  language?: PhraseBook | undefined;
}

/** A sentence with quantities in it: say`Boost falls by ${quantity(12, 'kPa')}.` */
export function say(words: readonly string[], ...parts: readonly (Sentence | Quantity)[]): Sentence {
  return { words: [...words], parts };
}

export function quantity(value: number, unit: string, stoichiometric?: number): Quantity {
  return stoichiometric === undefined ? { value, unit } : { value, unit, stoichiometric };
}

/** A range whose unit is said once: `15 to 35 °C`. */
export function quantityRange(from: number, to: number, unit: string): Sentence {
  return say`${{ value: from, unit, unitFollows: true }} to ${quantity(to, unit)}`;
}

/** A difference with its 95 % interval, where it has one: `+3.5 ± 0.7 kW`. */
export function difference(value: number, halfWidth: number, unit: string, digits: number): Sentence {
  const interval = { difference: value, halfWidth };
  return plusMinus({ value, unit, digits, as: 'difference', interval }, halfWidth, digits);
}

/** A figure with half of its interval, where there is one. */
export function withHalfWidth(value: number, halfWidth: number | undefined, unit: string, digits: number): Sentence {
  return plusMinus({ value, unit, digits }, halfWidth, digits);
}

function plusMinus(own: Quantity, halfWidth: number | undefined, digits: number): Sentence {
  return halfWidth === undefined || Number.isNaN(halfWidth)
    ? say`${own}`
    : say`${{ ...own, unitFollows: true }} ± ${{ ...own, value: halfWidth, digits, as: 'half-width' }}`;
}

/** Sentences one after another. */
export function joined(sentences: readonly Sentence[], between: string): Sentence {
  if (sentences.length < 2) return sentences[0] ?? '';
  return { words: ['', ...sentences.slice(1).map(() => between), ''], parts: sentences };
}

/** With a capital at its beginning; λ is a symbol and stays as it is. */
export function capitalised(sentence: Sentence): Sentence {
  if (typeof sentence === 'string')
    return sentence.charAt(0) === 'λ' ? sentence : sentence.charAt(0).toUpperCase() + sentence.slice(1);
  const [first = '', ...others] = sentence.words;
  if (first !== '') return { ...sentence, words: [capitalised(first) as string, ...others] };
  const [part, ...parts] = sentence.parts;
  return part === undefined || isQuantity(part) ? sentence : { ...sentence, parts: [capitalised(part), ...parts] };
}

/** A sentence as it is read: in the reader's units, or as everything is kept. */
export function written(sentence: Sentence, reader: Reader = keptUnits): string {
  const { language } = reader;
  if (typeof sentence === 'string') return keptTogether(language ? language.text(sentence) : sentence, reader);
  const put = (index: number) => {
    const part = sentence.parts[index];
    if (part === undefined) return '';
    return isQuantity(part) ? writtenQuantity(part, reader) : written(part, reader);
  };
  if (!language) return sentence.words.map((words, index) => keptTogether(words, reader) + put(index)).join('');
  // Another language may say the parts in another order.
  const pieces = language.template(sentence.words);
  return pieces.map((piece) => (typeof piece === 'number' ? put(piece) : keptTogether(piece, reader))).join('');
}

/** ± never parts from its figures at a line's end. */
function keptTogether(words: string, { space }: Reader): string {
  return space === undefined ? words : words.replaceAll(' ± ', `${space}±${space}`).replaceAll('± ', `±${space}`);
}

function isQuantity(part: Sentence | Quantity): part is Quantity {
  return typeof part === 'object' && 'value' in part;
}

function writtenQuantity(quantity: Quantity, reader: Reader): string {
  const { unit, stoichiometric, unitFollows, named } = quantity;
  const told = toldIn(unit, reader, stoichiometric ?? reader.stoichiometric);
  const english = figureOf(quantity, told);
  const figure = reader.language ? reader.language.figures(english) : english;
  if (named) return `${told.unit || unit} ${figure}`;
  return unitFollows ? figure : withUnit(figure, told.unit, reader.space);
}

function figureOf({ value, unit, as, digits, interval }: Quantity, told: Told): string {
  const figure = figureIn(told.of(value), told.unit, interval ? edgeDigits(interval, told, digits) : digits);
  switch (as) {
    case 'level':
      return levelFigure(told.of(value), told.unit !== '');
    case 'step':
      return stepFigure(told.of(value), told.unit === unit || told.unit === '' ? (digits ?? 0) : 2);
    case 'half-width':
      return halfWidthText(figure);
    case 'difference':
      return value > 0 && Number(figure) !== 0 ? `+${figure}` : figure;
    default:
      return figure;
  }
}

/** More digits than usual where these would hide on which side of its edge an interval ends. */
function edgeDigits({ difference, halfWidth }: NonNullable<Quantity['interval']>, told: Told, fewest = 0): number {
  const [size, half] = [told.of(difference), told.of(halfWidth)];
  const usual = Math.max(digitsIn(size, told.unit, fewest), digitsIn(half, told.unit, fewest));
  const needed = differenceDigits(size, half, usual);
  return needed > usual ? needed : fewest;
}

const stepFigure = (value: number, digits: number) => String(Number(value.toFixed(digits)));

/** A level of an item as it is said: `+12`, `0.88`. */
function levelFigure(value: number, signed: boolean): string {
  const shown = Number(value.toFixed(Math.abs(value) < 2 ? 2 : 1));
  return `${shown > 0 && signed ? '+' : shown < 0 ? '−' : ''}${Math.abs(shown)}`;
}
