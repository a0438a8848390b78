/** Powers of ten that an instrument's digits after the point may need. */
const powers = [1, 10, 100, 1e3, 1e4, 1e5, 1e6];
/** So that the step between two whole numbers and its sign fit into 32 bits with one to spare. */
const most = 2 ** 29;

/** A column of decimals as bytes, with the digits after the point that all its values fit into. */
export interface DecimalColumn {
  digits: number;
  bytes: Uint8Array;
}

/**
 * A column whose values are decimals of few digits, as instruments and files give them, in about a fifth of its
 * bytes: each value as a whole number of the last digit, told by its step from the one before in groups of seven
 * bits, 0 for a missing value (NaN).
 *
 * @returns undefined where a value is no such decimal: it would not come back bit for bit
 */
export function decimalColumn(values: Float64Array): DecimalColumn | undefined {
  const digits = digitsOf(values);
  if (digits === undefined) return undefined;
  const power = powers[digits]!;
  const bytes = new Uint8Array(values.length * 5);
  let at = 0;
  let before = 0;
  for (let index = 0; index < values.length; index++) {
    const value = values[index]!;
    if (Number.isNaN(value)) {
      bytes[at++] = 0;
      continue;
    }
    const whole = Math.round(value * power);
    const step = whole - before;
    before = whole;
    let code = (step < 0 ? -2 * step - 1 : 2 * step) + 1;
    while (code > 127) {
      bytes[at++] = (code & 127) | 128;
      code >>>= 7;
    }
    bytes[at++] = code;
  }
  return { digits, bytes: bytes.subarray(0, at) };
}

/** The least digits after the point that give every value back bit for bit. */
function digitsOf(values: Float64Array): number | undefined {
  let digits = 0;
  for (let index = 0; index < values.length; index++) {
    const value = values[index]!;
    while (!Number.isNaN(value) && !isDecimal(value, powers[digits]!)) if (++digits === powers.length) return undefined;
  }
  // More digits make the whole numbers larger: one that fitted before may not fit now.
  const power = powers[digits]!;
  return values.every((value) => !(Math.abs(value) * power > most)) ? digits : undefined;
}

/** A whole number over a power of ten is rounded once, so it is the same value as its decimal read from text. */
function isDecimal(value: number, power: number): boolean {
  const whole = Math.round(value * power);
  return whole / power === value && (value !== 0 || !Object.is(value, -0)) && Math.abs(whole) <= most;
}

const brokenColumn = 'The bytes of a column end before the column does.';

/**
 * The column that `decimalColumn` wrote.
 * @throws RangeError when the bytes end before it does, or are something else
 */
export function decimalsOf(bytes: Uint8Array, digits: number, samples: number): Float64Array {
  const power = powers[digits];
  // A value takes a byte at least: a false number of samples takes no memory.
  if (power === undefined || !(bytes.length >= samples)) throw new RangeError(brokenColumn);
  const values = new Float64Array(samples);
  let at = 0;
  let whole = 0;
  for (let index = 0; index < samples; index++) {
    let code = 0;
    for (let shift = 0; ; shift += 7) {
      const byte = bytes[at++];
      if (byte === undefined) throw new RangeError(brokenColumn);
      code |= (byte & 127) << shift;
      if (byte < 128) break;
    }
    code >>>= 0;
    if (code === 0) {
      values[index] = NaN;
      continue;
    }
    whole += (code - 1) % 2 === 0 ? (code - 1) / 2 : -code / 2;
    values[index] = whole / power;
  }
  return values;
}
