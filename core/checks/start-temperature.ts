import { quantity, say } from '../sentence/sentence.ts';
import { placeInWindow, toleranceK, type StartWindow } from '../heat/start-window.ts';
import { channelLabel } from '../recording/channels.ts';
import type { Finding } from './check.ts';

/**
 * Found when a run started outside the window of temperatures that the
 * baseline's runs started in: it is not ready-state against ready-state.
 *
 * @param starts °C by channel
 */
export function startTemperature(starts: Record<string, number>, window: StartWindow): Finding | undefined {
  let worst: { channel: string; value: number; by: number } | undefined;
  for (const [channel, value] of Object.entries(starts)) {
    const usual = window[channel];
    if (!usual || placeInWindow(value, usual) === 'inside') continue;
    // Against the runs themselves, not the window that is widened about them.
    const by = value < usual.fromC ? value - usual.fromC - toleranceK : value - usual.toC + toleranceK;
    if (!worst || Math.abs(by) > Math.abs(worst.by)) worst = { channel, value, by };
  }
  if (!worst) return undefined;
  const { channel, value, by } = worst;
  const label = channelLabel(channel);
  return {
    id: 'start-temperature',
    severity: 'mind',
    figure: Math.round(by),
    unit: 'K',
    message: say`It started with ${label.toLowerCase()} at ${quantity(value, '°C')}, ${quantity(Math.abs(by), 'K')} ${by < 0 ? 'colder' : 'hotter'} than any baseline run: not like for like in heat.`,
  };
}
