import { sampleAt } from '../numerics/sample-at.ts';
import { bandMean } from '../curve/band-mean.ts';
import type { GainBand } from './gain-band.ts';

/** A stretch of engine speed over which a gain or loss is clear of scatter, everywhere at once. */
export interface ClearStretch {
  fromRpm: number;
  toRpm: number;
  /** Mean gain over the stretch, in the band's unit, and the half width of an interval that holds for all stretches at once. */
  mean: number;
  halfWidth: number;
  verdict: 'gain' | 'loss';
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** Narrower stretches are not named, rpm; shorter breaks inside one are not told. */
const leastWidthRpm = 100;
const bridgedRpm = 75;

/**
 * The stretches over which a simultaneous band is clear of zero.
 * @param criticalT standard errors of the band
 */
export function stretchesClearOfZero(band: GainBand, criticalT = band.criticalT): ClearStretch[] {
  const { engineSpeedRpm, gain, standardError } = band;
  if (Number.isNaN(criticalT)) return [];
  const found: { from: number; to: number; sign: number }[] = [];
  for (let index = 0; index < gain.length; index++) {
    const clear = Math.abs(sampleAt(gain, index)) > criticalT * sampleAt(standardError, index);
    if (!clear) continue;
    const sign = Math.sign(sampleAt(gain, index));
    const last = found.at(-1);
    if (last && last.sign === sign && sampleAt(engineSpeedRpm, index) - sampleAt(engineSpeedRpm, last.to) <= bridgedRpm)
      last.to = index;
    else found.push({ from: index, to: index, sign });
  }
  return found
    .map(({ from, to, sign }) => ({
      fromRpm: sampleAt(engineSpeedRpm, from),
      toRpm: sampleAt(engineSpeedRpm, to),
      sign,
    }))
    .filter(({ fromRpm, toRpm }) => toRpm - fromRpm >= leastWidthRpm)
    .map(({ fromRpm, toRpm, sign }) => ({
      fromRpm,
      toRpm,
      mean: bandMean(engineSpeedRpm, gain, fromRpm, toRpm),
      // A mean is no surer than its parts when they move together.
      halfWidth: criticalT * bandMean(engineSpeedRpm, standardError, fromRpm, toRpm),
      verdict: sign > 0 ? 'gain' : 'loss',
    }));
}
