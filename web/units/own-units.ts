import { written, type Reader, type Sentence } from '../../core/sentence/sentence.ts';
import { differenceUnit, figureIn, toldIn, withUnit, type Told, type Units } from '../../core/units/told-units.ts';

/** One person's units at work: every figure, unit and sentence of the page goes through them. Units given are those that quantities are kept in. */
export interface OwnUnits extends Reader {
  write: (sentence: Sentence) => string;
  told: (unit: string) => Told;
  /** What a quantity is told in; empty where it has no unit. */
  unit: (unit: string) => string;
  /** A figure without its unit. */
  figure: (kept: number, unit: string) => string;
  /** A figure with its unit. */
  whole: (kept: number, unit: string) => string;
  /** A difference of two quantities, without its unit and sign of gain. */
  difference: (kept: number, unit: string) => string;
}

/**
 * A choice of units at work.
 * @param stoichiometric ratio of the fuel at hand, for mixtures that do not tell their own
 */
export function ownUnits(units: Units, stoichiometric?: number): OwnUnits {
  const reader: Reader = { ...units, stoichiometric, space: '\u00a0' };
  const told = (unit: string) => toldIn(unit, units, stoichiometric);
  const figure = (kept: number, unit: string) => figureIn(told(unit).of(kept), told(unit).unit);
  return {
    ...reader,
    told,
    figure,
    write: (sentence) => written(sentence, reader),
    unit: (unit) => told(unit).unit,
    whole: (kept, unit) => withUnit(figure(kept, unit), told(unit).unit),
    difference: (kept, unit) => figure(kept, differenceUnit(unit)),
  };
}

/** The air's temperature decides the correction: a tenth of a degree is read of it. */
export function airTemperature(celsius: number, { told }: Pick<OwnUnits, 'told'>): string {
  const { unit, of } = told('°C');
  return withUnit(figureIn(of(celsius), unit, 1), unit);
}
