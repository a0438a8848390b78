/** What a stand-in can be made to do wrong; named as they are shown. */
export const faultNames = [
  'tyre slip',
  'fuel cut',
  'lean at the top',
  'poor fuel',
  'weak pump',
  'low battery',
  'heat soak',
] as const;
export type FaultName = (typeof faultNames)[number];

const slipAtRpm = 0.72;
const slipWidth = 0.08;
const slipShare = 0.07;
const cutAtRpm = 0.66;
const cutLastsS = 0.18;
const leanFromRpm = 0.7;
const pumpHoldsToRpm = 0.6;

/** The faults that are on, and what they do to a pull; engine speeds as shares of the pull's top. */
export class Faults {
  private on = new Set<FaultName>();
  private cutLeftS = 0;
  private cutDone = false;

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
  }

  /** How much faster than the drum the engine turns, beyond creep. */
  slip(share: number, throttle: number): number {
    if (!this.has('tyre slip')) return 0;
    return slipShare * throttle * Math.exp(-(((share - slipAtRpm) / slipWidth) ** 2));
  }

  /** Share of the engine's torque that is left. */
  torqueLeft(share: number, throttle: number, stepS: number): number {
    if (this.has('fuel cut') && throttle > 0.9 && share > cutAtRpm && !this.cutDone) {
      this.cutDone = true;
      this.cutLeftS = cutLastsS;
    }
    this.cutLeftS -= stepS;
    if (this.cutLeftS > 0) return 0;
    return this.has('lean at the top') && share > leanFromRpm ? 0.975 : 1;
  }

  /** Added to λ. */
  lambda(share: number): number {
    const top = this.has('lean at the top') && share > leanFromRpm ? 0.09 : 0;
    return top + this.pumpShortKpa(share) / 900;
  }

  /** What the pump does not deliver, kPa; it runs out as flow grows with engine speed. */
  pumpShortKpa(share: number): number {
    return this.has('weak pump') ? Math.max(0, 260 * (share - pumpHoldsToRpm)) : 0;
  }

  get batteryV(): number {
    return this.has('low battery') ? 12.1 : 13.9;
  }

  /** As if the inlet were hotter by so much: poor fuel knocks as hot air does, °C. */
  get knockC(): number {
    return this.has('poor fuel') ? 75 : 0;
  }

  /** What the inlet takes up from under the bonnet, °C. */
  get soakC(): number {
    return this.has('heat soak') ? 24 : 0;
  }
}
