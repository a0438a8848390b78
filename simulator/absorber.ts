/** Torque for an error of one rad/s, and for one that lasts a second; N·m. */
const proportional = 190;
const integral = 420;
const mostNm = 2600;
/** Load while nothing is measured, as a share of speed: a car on the road. */
const idleNmPerRadS = 0.25;

/** A new speed is gone to at this rate, rad/s². */
const steadyingRadS2 = 30;

/** What the load is to do: let go, rise along a ramp and no faster, keep a speed, or give one torque. */
export type LoadControl =
  | { mode: 'free' }
  | { mode: 'ramp'; radPerS2: number }
  | { mode: 'hold'; radPerS: number }
  | { mode: 'torque'; torqueNm: number };

/** The load of a stand-in dyno. */
export class Absorber {
  torqueNm = 0;
  /** What the load cell reads: late by its time constant. */
  readNm = 0;
  private wantedRadS = 0;
  private held = 0;
  private mode: LoadControl['mode'] = 'free';

  constructor(
    private readonly lagS: number,
    /** What the cell reads with no load on it. */
    private readonly zeroNm: number,
  ) {}

  step(stepS: number, speedRadS: number, control: LoadControl): void {
    if (control.mode !== this.mode) {
      this.wantedRadS = speedRadS;
      this.held = this.torqueNm;
      this.mode = control.mode;
    }
    switch (control.mode) {
      case 'free':
        // After the lift the load is taken away gently.
        this.torqueNm += ((idleNmPerRadS * speedRadS - this.torqueNm) / 0.12) * stepS;
        break;
      case 'torque':
        this.torqueNm += ((control.torqueNm - this.torqueNm) / 0.12) * stepS;
        break;
      case 'ramp':
        this.wantedRadS += control.radPerS2 * stepS;
        this.follow(stepS, speedRadS);
        break;
      case 'hold':
        // A new speed is gone to along a ramp, not at once.
        this.wantedRadS +=
          Math.sign(control.radPerS - this.wantedRadS) *
          Math.min(steadyingRadS2 * stepS, Math.abs(control.radPerS - this.wantedRadS));
        this.follow(stepS, speedRadS);
    }
    this.readNm += ((this.torqueNm + this.zeroNm - this.readNm) / this.lagS) * stepS;
  }

  private follow(stepS: number, speedRadS: number): void {
    const ahead = speedRadS - this.wantedRadS;
    this.held = Math.min(mostNm, Math.max(0, this.held + integral * ahead * stepS));
    this.torqueNm = Math.min(mostNm, Math.max(0, this.held + proportional * ahead));
  }
}
