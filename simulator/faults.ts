/** What a stand-in can be made to do wrong; named as they are shown. */
export const faultNames = [
  'tyre slip',
  'wheel hop',
  'axle slip',
  'fuel cut',
  'low limiter',
  'lean at the top',
  'rich at the top',
  'poor fuel',
  'weak pump',
  'small injectors',
  'boost overshoot',
  'boost cut',
  'tired turbo',
  'dead sensor',
  'sensor at its ceiling',
  'low battery',
  'relearning',
  'heat soak',
  'hunting idle',
  'misfire at idle',
  'vacuum leak',
  'weak battery',
  'lazy turbo',
  'rich at cruise',
] as const;
export type FaultName = (typeof faultNames)[number];

const slipAt = 0.72;
const slipWidth = 0.08;
const slipShare = 0.07;
const axleSlipAt = 0.6;
const axleSlipWidth = 0.1;
const axleSlipShare = 0.05;
const hopAt = 0.5;
const hopWidth = 0.1;
const hopShare = 0.035;
const hopHz = 7;
const cutAt = 0.66;
const cutLastsS = 0.18;
const mixtureFrom = 0.7;
const overshootAt = 0.52;
const boostCutAt = 0.7;
const tiredFrom = 0.68;

/** The faults that are on, and what they do to a pull; engine speeds as shares of the pull's top. */
export class Faults {
  private on = new Set<FaultName>();
  private cutLeftS = 0;
  private cutDone = false;
  private boostCut = false;

  set(names: readonly string[]): void {
    this.on = new Set(faultNames.filter((name) => names.includes(name)));
  }

  has(name: FaultName): boolean {
    return this.on.has(name);
  }

  /** A new pull begins. */
  begin(): void {
    this.cutDone = false;
    this.cutLeftS = 0;
    this.boostCut = false;
  }

  /** How much faster than the drum the engine turns, beyond creep. */
  slip(share: number, throttle: number, timeS: number): number {
    const slip = this.has('tyre slip') ? slipShare * Math.exp(-(((share - slipAt) / slipWidth) ** 2)) : 0;
    const hop = this.has('wheel hop')
      ? hopShare * Math.exp(-(((share - hopAt) / hopWidth) ** 2)) * (1 + Math.sin(2 * Math.PI * hopHz * timeS))
      : 0;
    return throttle * (slip + hop);
  }

  /** By what share the front axle's drums fall behind. */
  axleSlip(share: number, throttle: number): number {
    if (!this.has('axle slip')) return 0;
    return throttle * axleSlipShare * Math.exp(-(((share - axleSlipAt) / axleSlipWidth) ** 2));
  }

  /** Share of the engine's torque that is left. */
  torqueLeft(share: number, throttle: number, stepS: number): number {
    if (this.has('fuel cut') && throttle > 0.9 && share > cutAt && !this.cutDone) {
      this.cutDone = true;
      this.cutLeftS = cutLastsS;
    }
    this.cutLeftS -= stepS;
    if (this.cutLeftS > 0) return 0;
    // Once boost has been taken away the controller limps to the end of the pull.
    return this.boostCut ? 0.75 : 1;
  }

  /** Added to λ. */
  lambda(share: number): number {
    if (share <= mixtureFrom) return 0;
    return (this.has('lean at the top') ? 0.09 : 0) - (this.has('rich at the top') ? 0.17 : 0);
  }

  get pumpShare(): number {
    return this.has('weak pump') ? 0.66 : 1;
  }

  get injectorShare(): number {
    return this.has('small injectors') ? 0.78 : 1;
  }

  /** What becomes of the boost that the turbo would make. @returns a share of it */
  boostShare(share: number, throttle: number, overLimit: boolean): number {
    if (throttle > 0.9 && (overLimit || (this.has('boost cut') && share > boostCutAt))) this.boostCut = true;
    if (this.boostCut) return 0.12;
    const over = this.has('boost overshoot') ? 0.26 * Math.exp(-(((share - overshootAt) / 0.06) ** 2)) : 0;
    const less = this.has('tired turbo') ? 0.8 * Math.max(0, share - tiredFrom) : 0;
    return 1 + over - less;
  }

  limiterRpm(standardRpm: number, top: number): number {
    return this.has('low limiter') ? 0.9 * top : standardRpm;
  }

  get batteryV(): number {
    return this.has('low battery') ? 12.1 : 13.9;
  }

  /** How much slower the turbo comes. */
  get turboLag(): number {
    return this.has('lazy turbo') ? 6 : 1;
  }

  /** λ ÷ what it would be, at part load. */
  get cruiseLambda(): number {
    return this.has('rich at cruise') ? 0.9 : 1;
  }

  get knockC(): number {
    return this.has('poor fuel') ? 95 : 0;
  }

  /** What the inlet takes up from under the bonnet, °C. */
  get soakC(): number {
    return this.has('heat soak') ? 24 : 0;
  }

  /** The long fuel trim, % : at rest, unless the controller still relearns. */
  longTrim(share: number): number {
    return this.has('relearning') ? -1 + 7 * Math.max(0, share - 0.3) : 1.5;
  }
}
