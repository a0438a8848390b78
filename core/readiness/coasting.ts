/**
 * The drum must have slowed by this share over the time that is looked back over; otherwise it stands or is driven. A
 * heavy roller slows by little.
 */
const slowsBy = 0.002;
const lookBackS = 3;
/** Speeds are noisy: so much at either end of that time is taken together, s. */
const endS = 0.5;
/** A drum this slow has nearly stopped, rad/s. */
const stillRadS = 3;

/** Whether a drum slows down by itself after a run, told by its speed. Begun at the end of a run, it ends for good. */
export class Coasting {
  private readonly speeds: { timeS: number; radS: number }[] = [];
  private over = false;

  /** Takes a reading. @param timeS the device's own, rising @param radS of the drum */
  push(timeS: number, radS: number): void {
    this.speeds.push({ timeS, radS });
    while (this.speeds.length > 1 && timeS - this.speeds[1]!.timeS >= lookBackS) this.speeds.shift();
    if (radS < stillRadS) this.over = true;
    const beganS = this.speeds[0]?.timeS ?? timeS;
    if (this.over || timeS - beganS < lookBackS) return;
    const before = this.meanOver((at) => at <= beganS + endS);
    const now = this.meanOver((at) => at >= timeS - endS);
    if (now > (1 - slowsBy) * before) this.over = true;
  }

  get goesOn(): boolean {
    return !this.over;
  }

  private meanOver(within: (timeS: number) => boolean): number {
    const found = this.speeds.filter(({ timeS }) => within(timeS));
    return found.reduce((sum, { radS }) => sum + radS, 0) / found.length;
  }
}
