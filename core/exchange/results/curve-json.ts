import { written } from '../../sentence/sentence.ts';
import type { Curve } from '../../figures/runs/corrected-curve.ts';
import { spanLimits, type Span } from '../../smoothing/span.ts';

/**
 * A curve as plain JSON, figures rounded to what they can mean: power to 1 mW,
 * torque to 0.1 mN·m. The form is the contract's `curveJson`.
 */
export function curveToJson(curve: Curve, auto: boolean) {
  const rounded = (values: Float64Array, digits: number) => Array.from(values, (value) => round(value, digits));
  return {
    engineSpeedRpm: Array.from(curve.engineSpeedRpm),
    powerKw: rounded(curve.powerKw, 6),
    uncorrectedPowerKw: rounded(curve.uncorrectedPowerKw, 6),
    torqueNm: rounded(curve.torqueNm, 4),
    ...(curve.drums
      ? { drumsKw: Object.fromEntries(curve.drums.map(({ place, powerKw }) => [place, rounded(powerKw, 6)])) }
      : {}),
    correction: {
      standard: curve.correction.standard,
      factor: round(curve.correction.factor, 6),
      valid: curve.correction.valid,
    },
    smoothing: { spanRpm: spanJson(curve.spanRpm), auto },
    sweep: {
      startS: round(curve.sweep.startS, 4),
      endS: round(curve.sweep.endS, 4),
      startRpm: round(curve.sweep.startRpm, 1),
      endRpm: round(curve.sweep.endRpm, 1),
    },
    engineSpeedFrom: curve.engineSpeedFrom,
    peakPower: {
      kw: round(curve.peakPower.value, 4),
      rpm: round(curve.peakPower.rpm, 1),
      atEdge: curve.peakPower.atEdge !== false,
    },
    peakTorque: {
      nm: round(curve.peakTorque.value, 3),
      rpm: round(curve.peakTorque.rpm, 1),
      atEdge: curve.peakTorque.atEdge !== false,
    },
    smoothingTookOffPeakKw: round(curve.takenOffPeakKw, 4),
    checks: curve.checks.map(({ id, severity, fromRpm = null, toRpm = null, figure, unit = null, message }) => ({
      id,
      severity,
      fromRpm,
      toRpm,
      figure: figure === undefined ? null : round(figure, 4),
      unit,
      message: written(message),
    })),
  };
}

/** One number, or `[least, most]` where the span varies along the range. */
export function spanJson(span: Span): number | [number, number] {
  return typeof span === 'number' ? span : [...spanLimits(span)];
}

/** A figure with no more digits than it can mean. */
export function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}

/** Power in kW to 0.1 W; null where there is none to tell. */
export function kw(value: number): number | null {
  return Number.isFinite(value) ? round(value, 4) : null;
}
