/** The mean; NaN for no value, and where one of them is not there. */
export function meanOf(values: readonly number[] | Float64Array): number {
  let sum = 0;
  for (let index = 0; index < values.length; index++) sum += values[index]!;
  return sum / values.length;
}

/** Sum of squared distances from the mean. */
export function scatterOf(values: readonly number[] | Float64Array): number {
  const mean = meanOf(values);
  let sum = 0;
  for (const value of values) sum += (value - mean) ** 2;
  return sum;
}
