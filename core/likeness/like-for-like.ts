import { quantity, say } from '../sentence/sentence.ts';
import { ethanol, fuelMoving, learnedOctane } from './fuel-respects.ts';
import { airAges, airMissing, corrections, heat } from './air-and-heat-respects.ts';
import { dynos, pressures, ramps, ratios, slip, differentWord } from './machine-respects.ts';
import type { LikeForLikeInput, Unlikeness } from './run-conditions.ts';
import { origins, vehicles } from './origin-respects.ts';
import { order, shortRange, remount, severalItems } from './session-respects.ts';

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
    differentWord(
      input,
      'gear',
      'other-gear',
      'stop',
      'gears',
      'an engine loses more to its own inertia in a lower gear: several percent',
      'Run both in one gear.',
    ),
    ratios(input),
    differentWord(
      input,
      'tyres',
      'other-tyres',
      'mind',
      'tyres',
      'tyres alone can move a reading by several percent',
      'Fit the same tyres, or make both sets anew.',
    ),
    pressures(input),
    differentWord(
      input,
      'fuel',
      'other-fuel',
      'mind',
      'fuels',
      'fuel can give or take several percent, and knock margin with it',
      'Compare on one fuel, or record the fuel as the change.',
    ),
    ethanol(input),
    fuelMoving(input),
    learnedOctane(input),
    differentWord(
      input,
      'fan',
      'other-fan',
      'mind',
      'fan settings',
      say`inlet air hotter by ${quantity(3, 'K')} reads about 1 % less`,
      'Run both with the fans set alike.',
    ),
    differentWord(
      input,
      'bonnet',
      'other-bonnet',
      'mind',
      'bonnet positions',
      say`a closed bonnet feeds hotter air: ${quantity(3, 'K')} reads about 1 % less`,
      'Run both with the bonnet alike.',
    ),
    differentWord(
      input,
      'loadMode',
      'other-load-mode',
      'stop',
      'load modes',
      'inertia and loaded runs differ by what turns the engine faster: 1 % is easily reached',
      'Run both in one load mode.',
    ),
    ramps(input),
    slip(input),
    airMissing(input),
    airAges(input),
    corrections(input),
    shortRange(input),
    heat(input),
    remount(input),
    severalItems(input),
    order(input),
  ];
  return found.filter((unlikeness) => unlikeness !== undefined);
}
