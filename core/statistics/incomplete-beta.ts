/**
 * The regularised incomplete beta function, from which Student's t and the
 * ratio of variances have their distributions.
 * Source: Press et al., Numerical Recipes, 3rd ed., §6.4 (continued fraction by Lentz's method).
 */
function logGamma(x: number): number {
  // Lanczos' approximation, g = 5, relative error below 2e-10 for x > 0.
  const coefficients = [
    76.18009172947146, -86.50532032941677, 24.01409824083091, -1.231739572450155, 1.208650973866179e-3,
    -5.395239384953e-6,
  ];
  const shifted = x + 5.5 - (x + 0.5) * Math.log(x + 5.5);
  const series = coefficients.reduce(
    (sum, coefficient, index) => sum + coefficient / (x + 1 + index),
    1.000000000190015,
  );
  return -shifted + Math.log((2.5066282746310005 * series) / x);
}

function betaFraction(a: number, b: number, x: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < tiny ? tiny : d);
  let result = d;
  for (let m = 1; m <= 200; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / nonZero(1 + even * d, tiny);
    c = nonZero(1 + even / c, tiny);
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / nonZero(1 + odd * d, tiny);
    c = nonZero(1 + odd / c, tiny);
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < 1e-14) break;
  }
  return result;
}

function nonZero(value: number, tiny: number): number {
  return Math.abs(value) < tiny ? tiny : value;
}

/** I_x(a, b). @param a,b above 0 @param x 0 to 1 */
export function incompleteBeta(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  return x < (a + 1) / (a + b + 2) ? (front * betaFraction(a, b, x)) / a : 1 - (front * betaFraction(b, a, 1 - x)) / b;
}
