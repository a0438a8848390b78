import type { Peak } from '../curve/peak.ts';

/** Before a peak's value: a curve that is highest where its run ends may have climbed further. */
export const peakBound = ({ atEdge }: Pick<Peak, 'atEdge'>): '' | 'at least ' => (atEdge === 'end' ? 'at least ' : '');
