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

/**
 * The trigger for a kind of run.
 * @param sustainS how long the drum must gain speed before it is a run
 * @param waiting true to see a lift first
 */
export function runTrigger(
  kind: 'power' | 'conditioning' | 'step' | 'coast-down' | 'check',
  sustainS: number,
  waiting = false,
): RunTrigger {
  const pull = new PullTrigger(sustainS, waiting);
  if (kind === 'step') return new StepWatch(pull);
  if (kind === 'coast-down') return new CoastWatch(pull);
  return pull;
}
