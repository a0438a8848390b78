import type { Chance } from './chance.ts';
import type { Faults } from './faults.ts';

/** Warm idle, rpm, and what it is more for each °C below warm. */
const warmRpm = 860;
const coldRpmPerC = 5;
const warmC = 80;
/** The idle controller brings the speed back in this time, s. */
const followsS = 0.45;
const crankingRpm = 215;
const crankedS = 0.85;
/** Speed above the idle as it catches, and how soon that has gone, s. */
const flareRpm = 620;
const flareGoneS = 1.3;
const swingRpm = 55;
const swingS = 2.3;
const dipsPerS = 0.25;
const dipRpm = 85;
const dipS = 0.22;

/** An engine out of gear: off, cranked, or idling. */
export class Idling {
  rpm = warmRpm;
  private state: 'off' | 'cranking' | 'running' = 'running';
  private sinceS = 0;
  private timeS = 0;
  private wanderRpm = 0;
  private dipLeftS = 0;
  private lowestV = 10.6;

  constructor(private readonly chance: Chance) {}

  /** Warm and running, as it is left after a pull. */
  run(): void {
    this.state = 'running';
    this.sinceS = Math.max(this.sinceS, 100);
  }

  off(): void {
    this.state = 'off';
    this.rpm = 0;
    this.sinceS = 0;
  }

  crank(): void {
    this.state = 'cranking';
    this.sinceS = 0;
  }

  get batteryV(): number | undefined {
    return this.state === 'running' ? undefined : this.state === 'off' ? 12.6 : this.lowestV;
  }

  step(stepS: number, faults: Faults, coolantC: number): void {
    this.sinceS += stepS;
    this.timeS += stepS;
    if (this.state === 'off') return;
    if (this.state === 'cranking') {
      const weak = faults.has('weak battery');
      this.lowestV = weak ? 8.7 : 10.6;
      const turning = weak ? 150 : crankingRpm;
      this.rpm += ((turning + 25 * Math.sin(2 * Math.PI * 6 * this.timeS) - this.rpm) / 0.08) * stepS;
      if (this.sinceS < crankedS * (weak ? 3.4 : 1) * (1 + Math.max(0, 20 - coolantC) / 60)) return;
      this.state = 'running';
      this.sinceS = 0;
      return;
    }
    const idle = warmRpm + coldRpmPerC * Math.max(0, warmC - coolantC) + (faults.has('vacuum leak') ? 60 : 0);
    const flare = flareRpm * Math.exp(-this.sinceS / flareGoneS);
    const swing = faults.has('hunting idle') ? swingRpm * Math.sin((2 * Math.PI * this.timeS) / swingS) : 0;
    const kept = Math.exp(-stepS / 0.3);
    this.wanderRpm = kept * this.wanderRpm + 5 * Math.sqrt(1 - kept * kept) * this.chance.normal(1);
    if (faults.has('misfire at idle') && this.dipLeftS <= 0 && this.chance.even() < dipsPerS * stepS)
      this.dipLeftS = dipS;
    this.dipLeftS -= stepS;
    const goal = idle + flare + swing + this.wanderRpm - (this.dipLeftS > 0 ? 3 * dipRpm : 0);
    const followsIn = this.dipLeftS > 0 ? 0.35 : followsS * (this.sinceS < 2 ? 0.3 : 0.25);
    this.rpm += ((goal - this.rpm) / followsIn) * stepS;
  }

  /** λ as the controller makes it: rich while it is cold, lean with a leak behind its meter. */
  lambda(faults: Faults, coolantC: number): number {
    return 1 - 0.0022 * Math.max(0, warmC - coolantC) + (faults.has('vacuum leak') ? 0.09 : 0);
  }
}
