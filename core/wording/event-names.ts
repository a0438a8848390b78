import { limitQuantities, type LimitQuantity } from '../limits/limit.ts';
import { channelLabel } from '../recording/channels.ts';
import type { LogEvent } from '../log/run-log.ts';

const names: Readonly<Record<string, string>> = {
  'boost-cut': 'boost cut',
  'boost-overshoot': 'boost overshoots',
  'boost-taper': 'boost tapers',
  'ethanol-differs': 'ethanol',
  'fuel-pressure-sag': 'fuel pressure sags',
  'fuel-trim': 'fuel trim',
  'injector-duty': 'injectors',
  knock: 'knock',
  lean: 'lean',
  'low-battery': 'battery low',
  'octane-moving': 'learned octane',
  'oil-pressure-low': 'oil pressure',
  'rail-pressure-sag': 'rail pressure sags',
  relearning: 'relearning',
  rich: 'rich',
};

/** What a mark on a strip is called: two or three words; the whole sentence stands in the event itself. */
export function eventName({ id, channels, limit }: Pick<LogEvent, 'id' | 'channels' | 'limit'>): string {
  const name = names[id];
  if (name) return name;
  const channel = channelLabel(channels[0] ?? '');
  if (id === 'sensor-dead') return `${channel} dead`;
  if (id === 'sensor-ceiling') return `${channel} at its end`;
  return limit ? limitQuantities[limit satisfies LimitQuantity].label : channel;
}
