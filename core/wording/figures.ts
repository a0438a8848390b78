import { differenceDigits } from '../units/difference-digits.ts';
import { fixedDigits } from '../units/fixed-digits.ts';
import { halfWidthText } from '../units/spoken.ts';
import { spanLimits, type Span } from '../smoothing/span.ts';
import { convert, type PowerUnit, type TorqueUnit } from '../units/units.ts';
import type { Peak } from '../curve/peak.ts';

export function formatPower(kw: number, unit: PowerUnit): string {
  return formatTenths(convert(kw, 'kW', unit));
}

export function formatTorque(newtonMetres: number, unit: TorqueUnit): string {
  return formatTenths(convert(newtonMetres, 'N·m', unit));
}

/** With its sign, also when it is a gain. */
export function signed(text: string): string {
  return text.startsWith('−') || /^0(\.0+)?$/.test(text) ? text : `+${text}`;
}

export { halfWidthText };
export { spokenRpm as formatRpm } from '../units/spoken.ts';

export function formatWhole(value: number): string {
  return fixedDigits(value, 0);
}

/** One span, or its least and greatest where it varies along the range. */
export function formatSpan(span: Span): string {
  const [least, most] = spanLimits(span);
  return least === most ? `${formatWhole(least)} rpm` : `${formatWhole(least)}–${formatWhole(most)} rpm`;
}

/** `+3.5`, ` ± 0.7`, and both together. */
export interface WrittenDifference {
  figure: string;
  half: string;
  whole: string;
}

/**
 * A difference with its sign, and half of its interval after it, where there is one, with the digits that show
 * whether nothing lies between.
 * @param value in the unit that is read, as is `halfWidth`
 */
export function formatDifference(value: number, halfWidth: number, digits = 1): WrittenDifference {
  const told = differenceDigits(value, halfWidth, digits);
  const write = (of: number) => fixedDigits(of, told);
  const [figure, half] = [signed(write(value)), plusMinus(halfWidth, write)];
  return { figure, half, whole: `${figure}${half}` };
}

/** A difference of power, kW, in another unit. */
export function powerDifference(kw: number, halfWidthKw: number, unit: PowerUnit): WrittenDifference {
  return formatDifference(convert(kw, 'kW', unit), convert(halfWidthKw, 'kW', unit));
}

/** Half of an interval after its figure; nothing where there is no spread to make one from. */
export function plusMinus(halfWidth: number, write: (value: number) => string): string {
  return Number.isNaN(halfWidth) ? '' : ` ± ${halfWidthText(write(halfWidth))}`;
}

/** What stands beside figures that are estimates for the crank: what they rest on; nothing beside those at the wheels. */
export function scaleNote({ estimate }: { estimate?: string | undefined }): string {
  return estimate === undefined ? '' : ` ≈ at the crank, ${estimate}`;
}

export function formatTenths(value: number): string {
  return fixedDigits(value, 1);
}

/** Before a peak's value: a curve that is highest where its run ends may have climbed further. */
export const peakBound = ({ atEdge }: Pick<Peak, 'atEdge'>): '' | 'at least ' => (atEdge === 'end' ? 'at least ' : '');
