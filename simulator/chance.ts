/** Repeatable chance for the stand-ins: the same seed plays the same day (xorshift32). */
export class Chance {
  private state: number;

  constructor(seed: number) {
    this.state = seed | 0 || 1;
  }

  /** Between 0 and 1. */
  even(): number {
    this.state ^= this.state << 13;
    this.state ^= this.state >>> 17;
    this.state ^= this.state << 5;
    return (this.state >>> 0) / 4294967296;
  }

  /** Normally distributed with the given standard deviation. */
  normal(deviation: number): number {
    // The sum of twelve evens is close enough to a bell for sensor noise.
    let sum = -6;
    for (let index = 0; index < 12; index++) sum += this.even();
    return sum * deviation;
  }
}
