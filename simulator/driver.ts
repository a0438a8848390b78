import type { Car } from './car.ts';

type Phase = 'rolling' | 'settling' | 'holding' | 'pulling' | 'coasting' | 'braking';

const holdS = 1.2;
const coastS = 2.2;
/** Full throttle in this time, s. */
const openingS = 0.14;

/** The stand-in driver: rolls along, and on request settles at the start speed, opens up, lifts, coasts and brakes. */
export class Driver {
  /** 0 to 1. */
  throttle = 0.2;
  braking = false;
  private phase: Phase = 'rolling';
  private phaseS = 0;
  private fromRpm = 2000;
  private toRpm = 6800;
  private idleRpm = 1500;
  private integral = 0.15;

  /** @param onPull called as each pull begins */
  constructor(private readonly onPull: () => void) {}

  drives(car: Car): void {
    this.fromRpm = car.sweepFromRpm;
    this.toRpm = car.sweepToRpm;
    this.idleRpm = car.idleRpm;
  }

  sweep(fromRpm?: number, toRpm?: number): void {
    if (this.busy) return;
    this.fromRpm = fromRpm ?? this.fromRpm;
    this.toRpm = toRpm ?? this.toRpm;
    this.enter('settling');
  }

  stop(): void {
    if (this.phase === 'settling' || this.phase === 'holding') this.enter('rolling');
    if (this.phase === 'pulling') this.enter('coasting');
  }

  get busy(): boolean {
    return this.phase !== 'rolling';
  }

  get pulling(): boolean {
    return this.phase === 'pulling';
  }

  step(stepS: number, rpm: number): void {
    this.phaseS += stepS;
    this.braking = this.phase === 'braking';
    switch (this.phase) {
      case 'rolling':
        return this.hold(stepS, rpm, this.idleRpm);
      case 'settling':
        this.hold(stepS, rpm, this.fromRpm);
        if (Math.abs(rpm - this.fromRpm) < 30) this.enter('holding');
        return;
      case 'holding':
        this.hold(stepS, rpm, this.fromRpm);
        if (this.phaseS > holdS && Math.abs(rpm - this.fromRpm) < 60) {
          this.onPull();
          this.enter('pulling');
        }
        return;
      case 'pulling':
        this.throttle = Math.min(1, this.throttle + stepS / openingS);
        if (rpm >= this.toRpm) this.enter('coasting');
        return;
      case 'coasting':
        this.throttle = Math.max(0, this.throttle - stepS / 0.08);
        if (this.phaseS > coastS) this.enter('braking');
        return;
      case 'braking':
        this.throttle = 0;
        if (rpm < this.idleRpm * 1.15) {
          this.integral = 0.15;
          this.enter('rolling');
        }
    }
  }

  private enter(phase: Phase): void {
    this.phase = phase;
    this.phaseS = 0;
  }

  /** Part throttle towards a speed, never as much as a pull. */
  private hold(stepS: number, rpm: number, wanted: number): void {
    const error = (wanted - rpm) / wanted;
    this.integral = Math.min(0.35, Math.max(0, this.integral + 0.12 * error * stepS));
    this.throttle = Math.min(0.42, Math.max(0, this.integral + 5 * error));
  }
}
