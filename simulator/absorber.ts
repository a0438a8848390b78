/** Torque for an error of one rad/s, and for one that lasts a second; N·m. */
const proportional = 190;
const integral = 420;
const mostNm = 2600;
/** Load while nothing is measured, as a share of speed: a car on the road. */
const idleNmPerRadS = 0.25;

/** The load of a stand-in dyno: in a pull it lets speed rise along a ramp and no faster. */
export class Absorber {
  torqueNm = 0;
  /** What the load cell reads: late by its time constant. */
  readNm = 0;
  private wantedRadS = 0;
  private held = 0;
  private pulling = false;

  constructor(
    private readonly rampRadS2: number,
    private readonly lagS: number,
  ) {}

  step(stepS: number, speedRadS: number, pulling: boolean): void {
    if (pulling && !this.pulling) {
      this.wantedRadS = speedRadS;
      this.held = this.torqueNm;
    }
    this.pulling = pulling;
    if (pulling) {
      this.wantedRadS += this.rampRadS2 * stepS;
      const ahead = speedRadS - this.wantedRadS;
      this.held = Math.min(mostNm, Math.max(0, this.held + integral * ahead * stepS));
      this.torqueNm = Math.min(mostNm, Math.max(0, this.held + proportional * ahead));
    } else {
      // After the lift the load is taken away gently.
      this.torqueNm += ((idleNmPerRadS * speedRadS - this.torqueNm) / 0.12) * stepS;
    }
    this.readNm += ((this.torqueNm - this.readNm) / this.lagS) * stepS;
  }
}
