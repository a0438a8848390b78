/**
 * Says, sample by sample, when a pull begins and when it ends, by the drum's
 * acceleration and the throttle where there is one. Knows only the
 * instrument's own clock, so it works the same at any playing speed.
 */
export class PullTrigger {
  private readonly times: number[] = [];
  private readonly speeds: number[] = [];
  private pulling = false;
  /** Since when the sign of a change has held, s. */
  private since: number | undefined;

  /**
   * @param sustainS how long the drum must gain speed before it is a pull
   * @param waiting true to see a lift first: the pull going on now has been dealt with
   */
  constructor(
    private readonly sustainS: number,
    private waiting = false,
  ) {}

  /**
   * @param time s, rising
   * @param speed drum speed, rad/s
   * @param throttle %, where there is one
   * @returns `begins` once at the start of a pull, with its time; `ends` once at its end
   */
  push(time: number, speed: number, throttle?: number): { event: 'begins' | 'ends'; time: number } | undefined {
    this.times.push(time);
    this.speeds.push(speed);
    while (time - this.times[0]! > windowS) {
      this.times.shift();
      this.speeds.shift();
    }
    if (this.times.length < 3) return undefined;
    const growth = relativeGrowth(this.times, this.speeds);
    const sign = this.pulling || this.waiting ? lifts(growth, throttle) : pulls(growth, speed, throttle);
    if (!sign) {
      this.since = undefined;
      return undefined;
    }
    this.since ??= time;
    if (time - this.since < (this.pulling || this.waiting ? liftSustainS : this.sustainS)) return undefined;
    const began = this.since;
    this.since = undefined;
    if (this.waiting) {
      this.waiting = false;
      return undefined;
    }
    this.pulling = !this.pulling;
    return { event: this.pulling ? 'begins' : 'ends', time: began };
  }
}

/** Acceleration is taken over this time, s. */
const windowS = 0.3;
/** A lift must last this long, s. */
const liftSustainS = 0.25;
/** Growth of drum speed a second, as a share of it, above which the car pulls, and below which it has lifted. */
const pullingGrowth = 0.03;
const liftedGrowth = 0;
/** Drum speed below which nothing is a pull, rad/s. */
const leastSpeed = 3;
const openThrottle = 50;
const closedThrottle = 30;

function pulls(growth: number, speed: number, throttle: number | undefined): boolean {
  return growth > pullingGrowth && speed > leastSpeed && (throttle === undefined || throttle >= openThrottle);
}

function lifts(growth: number, throttle: number | undefined): boolean {
  return growth < liftedGrowth || (throttle !== undefined && throttle < closedThrottle);
}

/** Slope of the speeds over their mean, 1/s, by least squares. */
function relativeGrowth(times: readonly number[], speeds: readonly number[]): number {
  const count = times.length;
  const meanTime = times.reduce((sum, value) => sum + value, 0) / count;
  const meanSpeed = speeds.reduce((sum, value) => sum + value, 0) / count;
  let product = 0;
  let square = 0;
  for (let index = 0; index < count; index++) {
    product += (times[index]! - meanTime) * (speeds[index]! - meanSpeed);
    square += (times[index]! - meanTime) ** 2;
  }
  return square > 0 && meanSpeed > 0 ? product / square / meanSpeed : 0;
}
