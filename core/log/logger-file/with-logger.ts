import { sampleAt } from '../../numerics/sample-at.ts';
import { valuesOf, type Recording } from '../../recording/recording.ts';
import { interpolate } from '../../numerics/interpolation.ts';
import { engineRpmOf } from '../../reduction/drive.ts';
import type { SweepDrive } from '../../reduction/sweep-drive.ts';
import { Refusal } from '../../refusal.ts';
import type { ProbePlace } from '../pull/from-recording.ts';
import { lineUp, whole, type LineUp } from './line-up.ts';
import type { RunLog } from '../pull/run-log.ts';

/**
 * A run's log with the channels of a logger beside it, moved onto the dyno's
 * clock by the engine speed that both recorded. Channels that the dyno has
 * itself stay the dyno's; outside of what the logger recorded there is no reading.
 *
 * @param logger its recording, on its own clock
 * @param probe where its λ probe sits
 * @throws Refusal when it logs no engine speed, or the traces do not fit
 */
export function withLogger(
  log: RunLog,
  { drive }: Pick<SweepDrive, 'drive'>,
  logger: Recording,
  probe: ProbePlace,
): { log: RunLog; fit: LineUp } {
  const rpm = valuesOf(logger, 'engineSpeed');
  if (!rpm) throw new Refusal('The logger records no engine speed: it cannot be time-aligned with the dyno.');
  const fit = lineUp(whole({ time: drive.time, rpm: engineRpmOf(drive) }), whole({ time: logger.time, rpm }));
  const [first, last] = [sampleAt(logger.time, 0), sampleAt(logger.time, logger.time.length - 1)];
  const channels = new Map(log.channels);
  for (const { name, values } of logger.channels) {
    if (channels.has(name)) continue;
    const lateS = name === 'lambda' ? probe.delayS : 0;
    const offset = name === 'lambda' ? probe.offset : 0;
    channels.set(
      name,
      log.time.map((at) => {
        const there = at - fit.shiftS + lateS;
        return there < first || there > last ? NaN : interpolate(logger.time, values, there) - offset;
      }),
    );
  }
  return { log: { ...log, channels }, fit };
}
