import type { Car } from './car.ts';

type Phase =
  | 'standing'
  | 'rolling'
  | 'settling'
  | 'holding'
  | 'pulling'
  | 'stepping'
  | 'keeping'
  | 'idling'
  | 'starting'
  | 'coasting'
  | 'running down'
  | 'braking';

const holdS = 1.2;
/** It stands for so long when asked to, s. */
const standsS = 40;
const coastS = 2.2;
/** Full throttle in this time, s. */
const openingS = 0.14;
/** How fast a foot follows the gauge, of the pedal's way in a second, at most and for each kPa that is missing. */
const fastestFoot = 0.8;
const footPerKpa = 0.04;
const footPerKw = 0.01;
/** A load beyond this is full throttle, kPa. */
export const fullKpa = 500;
/** An idle goes on a little longer than it is recorded, s. */
const lastingS = 3;
/** Never so far shut that the engine would not carry the load. */
const leastPedal = 0.08;
/** A pull that gains no speed for so long has met a limiter, s. */
const stalledS = 0.9;

/** Out of gear the drum runs down to this share of its speed, or for so long, s. */
const runDownShare = 0.3;
const longestRunDownS = 150;

/** A speed to be held counts as reached within this share. */
const reachedShare = 0.04;

/** What a foot is held by. */
export interface Gauges {
  manifoldKpa: number;
  wheelKw: number;
}

/** What the driver is asked to do. */
export interface Drive {
  kind: 'pull' | 'steps' | 'coast-down' | 'idle' | 'start';
  fromRpm?: number | undefined;
  toRpm?: number | undefined;
  /** Speeds to be held one after another at full throttle, and for how long each. */
  speedsRpm?: readonly number[];
  /** The manifold pressure at each of them, kPa; full throttle where there are none. */
  loadsKpa?: readonly number[] | undefined;
  /** Or the power at the wheels, kW. */
  wheelKw?: number | undefined;
  /** How long each of the holds lasts, where they differ, s. */
  dwellsS?: readonly number[];
  /** How long it idles, s. */
  forS?: number;
  dwellS?: number;
}

/** The stand-in driver: rolls along, and on request settles at the start speed, opens up, lifts, coasts and brakes. */
export class Driver {
  /** 0 to 1. */
  throttle = 0.2;
  braking = false;
  /** In neutral. */
  declutched = false;
  private phase: Phase = 'rolling';
  private phaseS = 0;
  private fromRpm = 2000;
  private toRpm = 6800;
  private idleRpm = 1500;
  private integral = 0.15;
  private drive: Drive = { kind: 'pull' };
  private next: Drive | undefined;
  private stepAt = 0;
  private fastest = 0;
  private fastestS = 0;
  private setSpeedRpm: number | undefined;
  private setLoadKpa: number | undefined;

  /** @param onPull called as each pull begins */
  constructor(private readonly onPull: () => void) {}

  drives(car: Car): void {
    this.fromRpm = car.sweepFromRpm;
    this.toRpm = car.sweepToRpm;
    this.idleRpm = car.idleRpm;
  }

  begin(drive: Drive): void {
    // Asked while the last pull is still being braked away, it follows.
    if (this.busy && this.phase !== 'keeping') {
      this.next = drive;
      return;
    }
    this.setSpeedRpm = undefined;
    this.next = undefined;
    this.drive = drive;
    this.stepAt = 0;
    this.enter(drive.kind === 'idle' ? 'idling' : drive.kind === 'start' ? 'starting' : 'settling');
  }

  /**
   * Keeps a set point of the load until another word: with this manifold pressure
   * (or at full throttle) where it is a speed, at part throttle where it is a torque.
   */
  keep(engineSpeedRpm: number | undefined, loadKpa?: number): void {
    if (this.busy && this.phase !== 'keeping') return;
    this.setSpeedRpm = engineSpeedRpm;
    this.setLoadKpa = loadKpa;
    this.enter('keeping');
  }

  stop(): void {
    this.setSpeedRpm = undefined;
    if (this.phase === 'keeping') return this.enter('coasting');
    this.next = undefined;
    if (this.phase === 'rolling') return this.enter('standing');
    if (this.phase === 'settling' || this.phase === 'holding') this.enter('rolling');
    if (this.phase === 'pulling' || this.phase === 'stepping') this.enter('coasting');
  }

  /** A set point is kept. */
  get keeping(): boolean {
    return this.phase === 'keeping';
  }

  get busy(): boolean {
    return this.phase !== 'rolling' && this.phase !== 'standing';
  }

  get pulling(): boolean {
    return this.phase === 'pulling';
  }

  /** The speed to be held now, rpm; undefined while none is. */
  get heldRpm(): number | undefined {
    if (this.phase === 'keeping') return this.setSpeedRpm;
    return this.phase === 'stepping' ? this.drive.speedsRpm?.[this.stepAt] : undefined;
  }

  /** The engine turns by itself, out of gear, or is off. */
  get outOfGear(): 'idling' | 'starting' | undefined {
    return this.phase === 'idling' || this.phase === 'starting' ? this.phase : undefined;
  }

  /** How long the phase has lasted, s. */
  get sinceS(): number {
    return this.phaseS;
  }

  /** @param gauges what the pedal is held by, where a load is asked for */
  step(stepS: number, rpm: number, gauges: Gauges): void {
    this.phaseS += stepS;
    this.braking = this.phase === 'braking' || this.phase === 'standing' || this.outOfGear !== undefined;
    this.declutched = this.phase === 'running down' || this.outOfGear !== undefined;
    switch (this.phase) {
      case 'standing':
        this.throttle = 0;
        if (this.phaseS > standsS) this.enter('rolling');
        return;
      case 'rolling':
        return this.hold(stepS, rpm, this.idleRpm);
      case 'settling':
        this.hold(stepS, rpm, this.startRpm);
        if (Math.abs(rpm - this.startRpm) < 30) this.enter('holding');
        return;
      case 'holding':
        this.hold(stepS, rpm, this.startRpm);
        if (this.phaseS > holdS && Math.abs(rpm - this.startRpm) < 60) {
          this.onPull();
          this.fastest = 0;
          this.enter(this.drive.kind === 'steps' ? 'stepping' : 'pulling');
        }
        return;
      case 'pulling':
        this.open(stepS);
        if (rpm > this.fastest + 5) [this.fastest, this.fastestS] = [rpm, this.phaseS];
        if (rpm >= this.endRpm || this.phaseS - this.fastestS > stalledS)
          this.enter(this.drive.kind === 'coast-down' ? 'running down' : 'coasting');
        return;
      case 'stepping':
        this.press({ kpa: this.drive.loadsKpa?.[this.stepAt], wheelKw: this.drive.wheelKw }, gauges, stepS);
        // The dwell counts from where the speed is reached.
        if (this.heldRpm === undefined || Math.abs(rpm / this.heldRpm - 1) > reachedShare) this.phaseS = 0;
        if (this.phaseS < (this.drive.dwellsS?.[this.stepAt] ?? this.drive.dwellS ?? 0)) return;
        if (++this.stepAt < (this.drive.speedsRpm?.length ?? 0)) this.phaseS = 0;
        else this.enter('coasting');
        return;
      case 'keeping':
        if (this.setSpeedRpm === undefined) this.hold(stepS, rpm, this.idleRpm * 1.4);
        else this.press({ kpa: this.setLoadKpa }, gauges, stepS);
        return;
      case 'idling':
      case 'starting':
        this.throttle = 0;
        if (this.phaseS > (this.drive.forS ?? 0) + lastingS) this.enter('braking');
        return;
      case 'coasting':
        this.throttle = Math.max(0, this.throttle - stepS / 0.08);
        if (this.phaseS > coastS) this.enter('braking');
        return;
      case 'running down':
        this.throttle = Math.max(0, this.throttle - stepS / 0.08);
        if (rpm < runDownShare * this.fastest || this.phaseS > longestRunDownS) this.enter('braking');
        return;
      case 'braking':
        this.throttle = 0;
        if (rpm < this.idleRpm * 1.15) {
          this.integral = 0.15;
          this.enter('rolling');
          if (this.next) this.begin(this.next);
        }
    }
  }

  private get startRpm(): number {
    const firstHeld = this.drive.speedsRpm?.[0];
    if (this.drive.kind === 'steps' && firstHeld !== undefined) return Math.max(this.idleRpm, firstHeld - 150);
    return this.drive.fromRpm ?? this.fromRpm;
  }

  private get endRpm(): number {
    return this.drive.toRpm ?? this.toRpm;
  }

  private open(stepS: number): void {
    this.throttle = Math.min(1, this.throttle + stepS / openingS);
  }

  /** Full throttle, or as much as keeps the manifold pressure or the power at the wheels: a foot follows the gauge. */
  private press(wanted: { kpa?: number | undefined; wheelKw?: number | undefined }, now: Gauges, stepS: number): void {
    const { kpa, wheelKw } = wanted;
    const full = wheelKw === undefined && (kpa === undefined || kpa >= fullKpa);
    if (full) return this.open(stepS);
    const missing =
      wheelKw === undefined ? footPerKpa * ((kpa ?? 0) - now.manifoldKpa) : footPerKw * (wheelKw - now.wheelKw);
    const rate = Math.max(-fastestFoot, Math.min(fastestFoot, missing));
    this.throttle = Math.max(leastPedal, Math.min(1, this.throttle + rate * stepS));
  }

  private enter(phase: Phase): void {
    this.phase = phase;
    this.phaseS = 0;
    this.fastestS = 0;
  }

  /** Part throttle towards a speed, never as much as a pull. */
  private hold(stepS: number, rpm: number, wanted: number): void {
    const error = (wanted - rpm) / wanted;
    this.integral = Math.min(0.35, Math.max(0, this.integral + 0.12 * error * stepS));
    this.throttle = Math.min(0.42, Math.max(0, this.integral + 5 * error));
  }
}
