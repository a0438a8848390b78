import type { RunPlan } from '../../contract/instruments/recording.ts';
import { speedChannels } from '../../core/recording/channels.ts';
import { runTrigger, type RunTrigger } from '../../core/recording/run-trigger.ts';

/** How long the drum must gain speed before it is a pull: with nobody at the controls, and when one was announced, s. */
const sustainS = { unarmed: 0.7, armed: 0.2 };

/** What is looked out for. */
export interface LookedFor {
  plan: RunPlan;
  armed: boolean;
  /** Nothing begins before the drum has slowed down: what is still pulling belongs to the run before. */
  waiting?: boolean;
  afterS?: number | undefined;
}

/** Looks out for the beginning and the end of a run in a dyno's rows. */
export class PullWatch {
  private trigger: RunTrigger | undefined;
  /** Of the drum, or of every drum: on two axles one may stand. */
  private readonly speedsAt: readonly number[];
  private readonly throttleAt: number;

  /** @param channels by name, as they stand in a row behind its time */
  constructor(channels: readonly string[]) {
    this.speedsAt = channels.flatMap((name, at) =>
      (speedChannels as readonly string[]).includes(name) ? [1 + at] : [],
    );
    this.throttleAt = 1 + channels.indexOf('throttle');
  }

  /** Looks for the beginning of a run from now on. */
  lookFor({ plan: { kind, steps, ofKind }, armed, waiting = false, afterS = 0 }: LookedFor): void {
    this.trigger = runTrigger(kind, {
      sustainS: armed ? sustainS.armed : sustainS.unarmed,
      waiting,
      announced: armed,
      atPartLoad: steps.loadsKpa.length > 0,
      afterS,
      lengthS: kind === 'idle' ? ofKind.idleS : ofKind.startS,
    });
  }

  /** Looks for the end of a run that is going on, from now on. */
  lookForEnd(kind: RunPlan['kind'], atPartLoad: boolean): void {
    this.trigger = runTrigger(kind, { sustainS: sustainS.unarmed, announced: true, atPartLoad });
  }

  /** What a row tells of the beginning or end of a run. */
  noticeIn(row: Float64Array): ReturnType<RunTrigger['push']> {
    const throttle = this.throttleAt > 0 ? (row[this.throttleAt] ?? NaN) : NaN;
    let speed = NaN;
    for (const at of this.speedsAt) {
      const own = row[at] ?? NaN;
      if (!(own <= speed)) speed = own;
    }
    if (Number.isNaN(speed)) return undefined;
    return this.trigger?.push(row[0] ?? NaN, speed, Number.isNaN(throttle) ? undefined : throttle);
  }
}
