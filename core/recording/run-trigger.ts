import type { RunKind } from './run-kind.ts';
import { PullTrigger } from './pull-trigger.ts';

/** Says, sample by sample, when a run begins and when it is over. */
export interface RunTrigger {
  /** @param time s @param speed of the drum, rad/s @param throttle %, where there is one */
  push(time: number, speed: number, throttle?: number): { event: 'begins' | 'ends'; time: number } | undefined;
}

/** A throttle must stay closed for so long before a row of holds is over, s; without one, the speed must fall by this share. */
const closedS = 1.5;
const closedThrottle = 30;
const fallenShare = 0.25;
/** Steps at part load close it further; a foot on the pedal opens it more than the first, a run of told holds is over below the second for so long, s. */
const drivenThrottle = 5;
const letGoThrottle = 1.5;
const letGoS = 1.8;
/** A coast is over when the drum turns at this share of its highest speed, or gains speed again for so long, s. */
const coastedShare = 0.33;
const regainedS = 2;

/** Watches for the beginning with a pull's own signs, and for the end with a rule of the kind. */
abstract class Watch implements RunTrigger {
  private begun = false;
  protected topSpeed = 0;

  constructor(private readonly beginning: PullTrigger) {}

  push(time: number, speed: number, throttle?: number): ReturnType<RunTrigger['push']> {
    const noticed = this.beginning.push(time, speed, throttle);
    if (!this.begun) {
      if (noticed?.event !== 'begins') return undefined;
      this.begun = true;
      this.topSpeed = speed;
      return noticed;
    }
    this.topSpeed = Math.max(this.topSpeed, speed);
    const ended = this.over(time, speed, throttle);
    if (ended === undefined) return undefined;
    this.begun = false;
    return { event: 'ends', time: ended };
  }

  /** @returns since when it is over, s */
  protected abstract over(time: number, speed: number, throttle: number | undefined): number | undefined;
}

/** A row of steady holds: it goes on through every hold, and ends when the driver lifts for good. */
class StepWatch extends Watch {
  private closedSince: number | undefined;

  protected over(time: number, speed: number, throttle: number | undefined): number | undefined {
    const closed = throttle === undefined ? speed < (1 - fallenShare) * this.topSpeed : throttle < closedThrottle;
    if (!closed) this.closedSince = undefined;
    else this.closedSince ??= time;
    return this.closedSince !== undefined && time - this.closedSince >= closedS ? this.closedSince : undefined;
  }
}

/** A coast-down: it goes on until little of the speed is left, before brakes are used, or the drum is driven again. */
class CoastWatch extends Watch {
  private lowest = Infinity;
  private lowestAt = 0;

  protected over(time: number, speed: number): number | undefined {
    const fallen = speed < 0.97 * this.topSpeed;
    if (!fallen) {
      this.lowest = Infinity;
      return undefined;
    }
    if (speed < this.lowest) [this.lowest, this.lowestAt] = [speed, time];
    if (speed <= coastedShare * this.topSpeed) return time;
    return time - this.lowestAt > regainedS ? this.lowestAt : undefined;
  }
}

/** Driving a table, or another run that an operator begins: at once when announced, and over when the pedal is let go for good. */
class ToldWatch implements RunTrigger {
  private begun = false;
  private closedSince: number | undefined;
  private driven = false;
  private firstS: number | undefined;

  constructor(private readonly afterS: number) {}

  push(time: number, _speed: number, throttle?: number): ReturnType<RunTrigger['push']> {
    if (!this.begun) {
      this.firstS ??= time;
      if (time - this.firstS < this.afterS) return undefined;
      this.begun = true;
      return { event: 'begins', time };
    }
    if (throttle === undefined) return undefined;
    this.driven ||= throttle > drivenThrottle;
    if (throttle > letGoThrottle || !this.driven) this.closedSince = undefined;
    else this.closedSince ??= time;
    return this.closedSince !== undefined && time - this.closedSince >= letGoS
      ? { event: 'ends', time: this.closedSince }
      : undefined;
  }
}

/** A run of a length that was said beforehand: an idle, a start. */
class TimedWatch implements RunTrigger {
  private firstS: number | undefined;
  private begun = false;
  private ended = false;

  constructor(
    private readonly afterS: number,
    private readonly lengthS: number,
  ) {}

  push(time: number): ReturnType<RunTrigger['push']> {
    this.firstS ??= time;
    const since = time - this.firstS - this.afterS;
    if (!this.begun) {
      if (since < 0) return undefined;
      this.begun = true;
      return { event: 'begins', time };
    }
    if (this.ended || since < this.lengthS) return undefined;
    this.ended = true;
    return { event: 'ends', time };
  }
}

export interface TriggerSettings {
  sustainS: number;
  waiting?: boolean;
  announced?: boolean;
  atPartLoad?: boolean;
  afterS?: number;
  lengthS?: number;
}

/**
 * The trigger for a kind of run.
 * @param sustainS how long the drum must gain speed before it is a run
 * @param waiting true to see a lift first
 * @param announced somebody has said that one follows
 * @param lengthS an idle or a start is over after so long, s
 * @param afterS what was announced begins so much later, s
 * @param atPartLoad the holds of a row of them are not at full throttle
 */
export function runTrigger(
  kind: RunKind,
  { sustainS, waiting = false, announced = false, atPartLoad = false, afterS = 0, lengthS = Infinity }: TriggerSettings,
): RunTrigger {
  const pull = new PullTrigger(sustainS, waiting);
  switch (kind) {
    case 'step':
      return announced && atPartLoad ? new ToldWatch(afterS) : new StepWatch(pull);
    case 'idle':
    case 'cold-start':
      return announced ? new TimedWatch(afterS, lengthS) : pull;
    case 'part-load':
    case 'transient':
    case 'cruise':
      // Where nobody announced it a pull is what is noticed, and it ends as one.
      return announced ? new ToldWatch(afterS) : pull;
    case 'coast-down':
      return new CoastWatch(pull);
    default:
      return pull;
  }
}
