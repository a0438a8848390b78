import { medianOf } from '../../numerics/quantile.ts';
import { eventAt, pullOf, thirdsOf, type JudgedLog, type LogEvent, type RunLog } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** A content sensor is good to about this, percent by volume. */
const sensorPct = 5;
/** A learned octane reading that moves by this much within the pull, %, has not settled. */
const movesPct = 2;

/** Found when the sensor's ethanol content is not what the fuel ledger says. */
export function ethanolContent(log: JudgedLog): LogEvent[] {
  const read = log.channels.get('ethanolContent');
  const { ethanolPct } = log.engine;
  if (!read || ethanolPct === null) return [];
  const [first, last] = pullOf(log);
  const usual = medianOf(read.subarray(first, last + 1).filter((value) => !Number.isNaN(value)));
  if (!(Math.abs(usual - ethanolPct) > sensorPct)) return [];
  return [
    eventAt(
      log,
      { from: first, to: last },
      {
        id: 'ethanol-differs',
        name: 'ethanol',
        severity: 'mind',
        figure: usual,
        unit: '%vol',
        message: `The sensor reads ${Math.round(usual)} % ethanol, the fuel ledger says ${Math.round(ethanolPct)} %: measure a sample, and put the ledger or the sensor right before fuelling is judged.`,
        channels: ['ethanolContent', 'fuelTrimLong', 'lambda'],
      },
    ),
  ];
}

/** Found when the controller's own learned octane reading moves in the pull: ignition follows it, and the next run will differ. */
export function learnedOctane(log: RunLog): LogEvent[] {
  const read = log.channels.get('learnedOctane');
  if (!read) return [];
  const [first, last] = pullOf(log);
  const [before, after] = thirdsOf(log, read);
  if (!(Math.abs(after - before) > movesPct)) return [];
  const what = after < before ? 'it hears knock and trusts the fuel less' : 'it trusts the fuel more';
  return [
    eventAt(
      log,
      { from: first, to: last },
      {
        id: 'octane-moving',
        name: 'learned octane',
        severity: 'mind',
        figure: after - before,
        unit: '%',
        message: `The controller’s learned octane moves from ${Math.round(before)} to ${Math.round(after)} % within the pull: ${what}. Make conditioning runs until it rests.`,
        channels: ['learnedOctane', 'ignitionAdvance', 'knockRetard'],
      },
    ),
  ];
}
