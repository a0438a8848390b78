import { chance, wandering } from './chance.ts';
import { testDyno, usualTorque } from './test-car.ts';
import type { Faults, GeneratedRun } from './pull-options.ts';
import type { PullState } from './pull-state.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { PI, cos, exp, max, min, sin } = Math;

/** Time constant of an absorber's control, s. */
const steeringS = 0.15;

/** Steps the drum through lead-in, pull and coast: I·dω/dt = torque in − absorber − losses. */
export class Pull {
  ended = false;
  openedS = NaN;
  liftedS = NaN;
  private readonly perRadS: number;
  private readonly topTorque: number;
  private readonly misfire: (stepS: number) => number;
  private readonly control: (stepS: number) => number;
  private timeS = 0;
  private speed: number;
  private phase: PullState['phase'] = 'lead-in';
  private phaseS = 0;
  private openness = 0;
  private absorber = 0;
  private rampRadS = 0;
  private excess = 0;
  private cutUntilS = -1;
  private cutDone = false;
  private limiterSinceS = NaN;
  private eased: { untilS: number } | undefined;

  constructor(private readonly run: GeneratedRun) {
    this.perRadS = ((run.ratio ?? 3.4) * 60) / (2 * PI);
    this.speed = this.fromRpm / this.perRadS;
    const random = chance((run.seed ?? 1) * 104729 + 3);
    const torque = run.drumTorque ?? usualTorque;
    let top = 0;
    for (let rpm = this.fromRpm; rpm <= this.toRpm; rpm += 50) top = max(top, torque(rpm));
    this.topTorque = top;
    this.misfire = wandering(random, run.faults?.misfire?.share ?? 0, 0.05);
    this.control = wandering(random, run.controlNoiseNm ?? 0, 0.02);
  }

  private get fromRpm() {
    return this.run.fromRpm ?? 2000;
  }

  private get toRpm() {
    return this.run.toRpm ?? 6500;
  }

  step(stepS: number): PullState {
    const { run } = this;
    const dyno = run.dyno ?? testDyno;
    const { aNm, bNmPerRadS, cNmPerRadS2 } = dyno.parasitic;
    const loss = aNm + bNmPerRadS * this.speed + cNmPerRadS2 * this.speed ** 2;
    const lockedRpm = this.speed * this.perRadS;
    const engineRpm = lockedRpm * (1 + this.excess);
    const wanted = { 'lead-in': 0, back: 0, coast: 0, stab: 1, pull: 1, feather: run.feather?.share ?? 1 }[this.phase];
    const most = stepS / 0.1;
    this.openness += max(-most, min(most, wanted - this.openness));
    const fault =
      this.phase === 'pull' ? this.faultAt(engineRpm, stepS) : { factor: 1, slip: 0, pedal: 1, disturbed: false };
    const full = (run.drumTorque ?? usualTorque)(engineRpm);
    const torque = this.phase === 'lead-in' ? loss : this.openness * fault.factor * full;
    const pulling = this.phase !== 'lead-in' && this.phase !== 'back' && this.phase !== 'coast';
    this.absorb(dyno.kind !== 'inertia-roller' && pulling, torque - loss, dyno.inertiaKgM2, stepS);
    const state: PullState = {
      timeS: this.timeS,
      phase: this.phase,
      speedRadS: this.speed,
      engineRpm,
      drumTorqueNm: torque,
      absorberNm: this.absorber,
      openness: this.openness * fault.pedal,
      swingRadS: this.swing(),
      disturbed: fault.disturbed,
    };
    this.speed += ((torque - this.absorber - loss) / dyno.inertiaKgM2) * stepS;
    const creep = ((run.creep ?? 0) * torque) / this.topTorque;
    this.excess += (creep + fault.slip - this.excess) * min(1, stepS / 0.02);
    // Whole nanoseconds, so that a thousand steps of 5 ms end at 5 s.
    this.timeS = Math.round((this.timeS + stepS) * 1e9) / 1e9;
    this.phaseS += stepS;
    this.turn(engineRpm, dyno.coastAbsorberNm ?? 0);
    return state;
  }

  /** The absorber takes what lets the drum gain speed at the ramp's rate, wanders about it, and is steered back to the ramp. */
  private absorb(pulling: boolean, surplus: number, inertia: number, stepS: number): void {
    if (!pulling) {
      this.absorber = this.phase === 'coast' ? (this.run.dyno?.coastAbsorberNm ?? 0) : 0;
      this.rampRadS = this.speed;
      return;
    }
    const rate = (this.run.rampRpmPerS ?? 450) / this.perRadS;
    // The ramp waits for an engine that cannot follow it, and not for an absorber that wanders.
    this.rampRadS = min(this.rampRadS + rate * stepS, this.speed + max(0.5 * rate, 1));
    const wanted = surplus - inertia * (rate - (this.speed - this.rampRadS) / steeringS);
    this.absorber = max(0, wanted) + this.control(stepS);
  }

  private faultAt(rpm: number, stepS: number): { factor: number; slip: number; pedal: number; disturbed: boolean } {
    const { fuelCut, limiter, letOff, tyreSlip, hop, clutchSlip, converter, limp, misfire } = this.run.faults ?? {};
    let factor = 1;
    let slip = 0;
    let pedal = 1;
    let disturbed = false;
    if (fuelCut && !this.cutDone && rpm >= fuelCut.atRpm) {
      this.cutDone = true;
      this.cutUntilS = this.timeS + fuelCut.lastsS;
    }
    if (this.timeS < this.cutUntilS) [factor, disturbed] = [0, true];
    if (letOff && !this.eased && rpm >= letOff.atRpm) this.eased = { untilS: this.timeS + letOff.lastsS };
    if (this.eased && this.timeS < this.eased.untilS) [factor, pedal, disturbed] = [letOff!.share, letOff!.share, true];
    if (limiter && rpm >= limiter.atRpm) {
      if (Number.isNaN(this.limiterSinceS)) this.limiterSinceS = this.timeS;
      // A limiter takes away a few working strokes at least.
      this.cutUntilS = max(this.cutUntilS, this.timeS + 0.05);
      [factor, disturbed] = [0, true];
    }
    for (const zone of tyreSlip ? [tyreSlip, ...(tyreSlip.again ? [tyreSlip.again] : [])] : []) {
      if (rpm <= zone.fromRpm || rpm >= zone.toRpm) continue;
      slip += zone.share * sin((PI * (rpm - zone.fromRpm)) / (zone.toRpm - zone.fromRpm)) ** 0.5;
      [factor, disturbed] = [0.85, true];
    }
    if (hop && rpm > hop.fromRpm && rpm < hop.toRpm) {
      const swing = sin(2 * PI * hop.hz * this.timeS);
      slip += hop.share * (0.5 + 0.5 * swing);
      [factor, disturbed] = [0.85 + 0.15 * swing, true];
    }
    if (clutchSlip) {
      const load = (this.run.drumTorque ?? usualTorque)(rpm) / this.topTorque;
      slip += clutchSlip.share * max(0, (load - 0.5) / 0.5);
    }
    if (converter) slip += converter.share * max(0, 1 - (rpm - this.fromRpm) / (0.7 * (this.toRpm - this.fromRpm)));
    if (limp) factor *= 1 - (1 - limp.share) * limpAt(rpm, limp);
    if (misfire) factor *= min(1.1, max(0, 1 + this.misfire(stepS)));
    return { factor, slip, pedal, disturbed };
  }

  private swing(): number {
    const { shuffle } = this.run;
    if (!shuffle || this.phase !== 'pull') return 0;
    const since = this.timeS - this.openedS;
    return shuffle.amplitude * exp(-since / shuffle.decayS) * sin(2 * PI * shuffle.hz * since);
  }

  /** Goes on to the next phase where this one is over. */
  private turn(rpm: number, coastAbsorber: number): void {
    const { run, phaseS } = this;
    const go = (phase: PullState['phase']) => ([this.phase, this.phaseS] = [phase, 0]);
    const open = () => {
      go(run.feather && this.phase !== 'feather' ? 'feather' : 'pull');
      if (this.phase === 'pull') this.openedS = this.timeS;
    };
    if (this.phase === 'lead-in' && phaseS > (run.leadInS ?? 1.5)) {
      if (run.stab && Number.isNaN(this.openedS) && this.timeS < (run.leadInS ?? 1.5) + 1) go('stab');
      else open();
    } else if (this.phase === 'stab' && rpm >= run.stab!.toRpm) go('back');
    else if (this.phase === 'back') {
      this.absorber = coastAbsorber;
      // The machine's brake brings it back; nobody waits for a coast of a minute.
      this.speed *= 1 - 0.0004;
      if (rpm <= this.fromRpm) go('lead-in');
    } else if (this.phase === 'feather' && phaseS > run.feather!.lastsS) open();
    else if (this.phase === 'pull') {
      const held = this.timeS - this.limiterSinceS > (run.faults?.limiter?.lastsS ?? 0);
      if (run.recordedToRpm && rpm >= run.recordedToRpm) this.ended = true;
      if (rpm >= this.toRpm || held) {
        this.liftedS = this.timeS;
        go('coast');
      }
    } else if (this.phase === 'coast' && phaseS >= (run.coastS ?? 2)) this.ended = true;
  }
}

/** How much of a limp mode has come, 0 to 1: a ramp, or half a wave of a cosine for a controller that eases into it. */
function limpAt(rpm: number, { fromRpm, overRpm, softRpm }: NonNullable<Faults['limp']>): number {
  const within = (share: number) => min(1, max(0, share));
  if (!softRpm) return within((rpm - fromRpm) / overRpm);
  // The middle four fifths of the half wave are 0.59 of its width.
  const past = within(0.5 + (0.59 * (rpm - fromRpm - overRpm / 2)) / softRpm);
  return (1 - cos(PI * past)) / 2;
}
