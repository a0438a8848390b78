import type { LaneGroup } from '../../../../core/log/view/lane-groups.ts';
import { channelLabel } from '../../../../core/recording/channels.ts';
import { listed } from '../../../../core/units/listed.ts';

/** What a group of channels is called in a list. */
export function laneTitle({ channels }: Pick<LaneGroup, 'channels'>): string {
  return listed(channels.map(channelLabel));
}
