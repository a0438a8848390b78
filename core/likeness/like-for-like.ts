import { quantity, say } from '../sentence/sentence.ts';
import { ethanol, fuelMoving, learnedOctane } from './fuel-respects.ts';
import { airAges, airMissing, corrections, engineFactors, heat } from './air-and-heat-respects.ts';
import {
  dynos,
  pressures,
  ramps,
  ratios,
  slip,
  differentWord,
  type WordField,
  type WordRespect,
} from './machine-respects.ts';
import type { LikeForLikeInput, Unlikeness } from './run-conditions.ts';
import { origins, vehicles } from './origin-respects.ts';
import { order, shortRange, shortRun, remount, severalItems } from './session-respects.ts';

/** What runs are told apart by as it was written down of them, word for word. */
const writtenWords = {
  gear: {
    id: 'other-gear',
    severity: 'stop',
    words: 'gears',
    matters: 'an engine loses more to its own inertia in a lower gear: several percent',
    remedy: 'Run both in one gear.',
  },
  tyres: {
    id: 'other-tyres',
    severity: 'mind',
    words: 'tyres',
    matters: 'tyres alone can move a reading by several percent',
    remedy: 'Fit the same tyres, or make both sets anew.',
  },
  fuel: {
    id: 'other-fuel',
    severity: 'mind',
    words: 'fuels',
    matters: 'fuel can give or take several percent, and knock margin with it',
    remedy: 'Compare on one fuel, or record the fuel as the change.',
  },
  fan: {
    id: 'other-fan',
    severity: 'mind',
    words: 'fan settings',
    matters: say`inlet air hotter by ${quantity(3, 'K')} reads about 1 % less`,
    remedy: 'Run both with the fans set alike.',
  },
  bonnet: {
    id: 'other-bonnet',
    severity: 'mind',
    words: 'bonnet positions',
    matters: say`a closed bonnet feeds hotter air: ${quantity(3, 'K')} reads about 1 % less`,
    remedy: 'Run both with the bonnet alike.',
  },
  loadMode: {
    id: 'other-load-mode',
    severity: 'stop',
    words: 'load modes',
    matters: 'inertia and loaded runs differ by what turns the engine faster: 1 % is easily reached',
    remedy: 'Run both in one load mode.',
  },
} satisfies Partial<Record<WordField, WordRespect>>;

/**
 * Lists every respect in which two sets of runs are not alike, how much each
 * can matter, and what would remedy it. A finding of severity `stop` means
 * that the spread within a setup cannot judge the difference: figures yes,
 * verdict no.
 */
export function unlikeRespects(input: LikeForLikeInput): Unlikeness[] {
  const found = [
    vehicles(input),
    origins(input),
    dynos(input),
    differentWord(input, 'gear', writtenWords.gear),
    ratios(input),
    differentWord(input, 'tyres', writtenWords.tyres),
    pressures(input),
    differentWord(input, 'fuel', writtenWords.fuel),
    ethanol(input),
    fuelMoving(input),
    learnedOctane(input),
    differentWord(input, 'fan', writtenWords.fan),
    differentWord(input, 'bonnet', writtenWords.bonnet),
    differentWord(input, 'loadMode', writtenWords.loadMode),
    ramps(input),
    slip(input),
    airMissing(input),
    airAges(input),
    corrections(input),
    engineFactors(input),
    shortRun(input) ?? shortRange(input),
    heat(input),
    remount(input),
    severalItems(input),
    order(input),
  ];
  return found.filter((unlikeness) => unlikeness !== undefined);
}
