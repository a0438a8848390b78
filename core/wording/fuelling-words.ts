import type { FuellingAxis, FuellingAxisChannel } from '../fuelling/axes.ts';
import type { FuellingTable } from '../fuelling/fuelling-table.ts';
import { usualOffsetShare, type FuellingOfRuns } from '../fuelling/fuelling-of-runs.ts';
import type { CellVisit } from '../fuelling/next-cell.ts';
import type { CellKnowledge, CellStanding, FuellingProgress } from '../fuelling/standing.ts';
import type { KeptOutFor } from '../fuelling/steady.ts';
import { formatWhole } from './figures.ts';

/** How an axis is called, and its unit. */
export const axisNames: Record<FuellingAxisChannel, { name: string; unit: string; digits: number }> = {
  engineSpeed: { name: 'engine speed', unit: 'rpm', digits: 0 },
  manifoldPressure: { name: 'manifold pressure', unit: 'kPa', digits: 0 },
  airMassPerCycle: { name: 'air mass a cycle', unit: 'g', digits: 2 },
  throttle: { name: 'throttle', unit: '%', digits: 0 },
  boost: { name: 'boost', unit: 'kPa', digits: 0 },
  airFlowSensor: { name: 'air flow sensor', unit: 'V', digits: 2 },
};

export const breakpointWords = ({ channel }: Pick<FuellingAxis, 'channel'>, value: number): string => {
  const { digits } = axisNames[channel];
  return digits === 0 ? formatWhole(value) : value.toFixed(digits);
};

/** `2,500 rpm at 60 kPa, hold 4 s` @param hold what stands before the time */
export function visitWords({ across, down, holdS }: CellVisit, axes: FuellingTable['axes'], hold: string): string {
  const at = (axis: FuellingAxis, value: number) => `${breakpointWords(axis, value)} ${axisNames[axis.channel].unit}`;
  const load = axes.down && down !== null ? ` at ${at(axes.down, down)}` : '';
  return `${at(axes.across, across)}${load}${hold} ${holdS} s`;
}

export const knowledgeWords: Record<CellKnowledge, string> = {
  empty: 'not driven',
  thin: 'too little driven',
  known: 'known',
};

export const standingWords: Record<CellStanding, string> = {
  'within 1 %': 'within 1 %, with confidence',
  'within 3 %': 'within 3 %, with confidence',
  'beyond 3 %': 'more than 3 % off, with confidence',
  'beyond 1 %': 'more than 1 % off, with confidence',
  open: 'not settled yet: hold it longer',
  'not known': 'not known',
};

/** `14 of 20 cells known · 9 within 1 % · 2 beyond 3 %` */
export function progressWords({ known, thin, empty, within1, beyond3 }: FuellingProgress): string {
  const cells = known + thin + empty;
  if (known === 0) return `None of ${cells} cells known yet`;
  return `${known} of ${cells} cells known · ${within1} within 1 % · ${beyond3} more than 3 % off`;
}

const keptOutWords: Record<Exclude<KeptOutFor, 'kept'>, string> = {
  transient: 'while speed or load moved',
  'fuel cut': 'with the fuel cut',
  settling: 'until the probe had settled',
  probe: 'with the probe not ready, or beyond its range',
  'not read': 'without a reading of λ or its target',
  'off the table': 'off the table',
};

/** What the figures rest on, and what was left out and why. */
export function usedWords({ usedS, keptOutS }: Pick<FuellingTable, 'usedS' | 'keptOutS'>): string {
  const out = (Object.keys(keptOutWords) as (keyof typeof keptOutWords)[]).flatMap((reason) => {
    const seconds = keptOutS[reason] ?? 0;
    return seconds >= 0.5 ? [`${formatWhole(seconds)} s ${keptOutWords[reason]}`] : [];
  });
  return `${formatWhole(usedS)} s used${out.length > 0 ? `; left out: ${out.join(', ')}` : ''}.`;
}

/** What all cells share and no cell's ± holds: the offset of a probe that nobody entered; empty where it is known of all runs. */
export function offsetWords({ offsetUnknown, used }: Pick<FuellingOfRuns, 'offsetUnknown' | 'used'>): string {
  if (offsetUnknown.length === 0) return '';
  const whose = offsetUnknown.length === used.length ? '' : ` with ${offsetUnknown.join(', ')}`;
  return `The probe’s offset was not entered${whose}: all cells alike may be off by up to ±${100 * usualOffsetShare} % (assumed), which is in no cell’s ±. Enter it with the logger, on Devices or with its file.`;
}

/** The same where a table is proposed. */
export const offsetInProposal = ({ offsetUnknown }: Pick<FuellingOfRuns, 'offsetUnknown'>): string =>
  offsetUnknown.length === 0
    ? ''
    : `By the probe as it reads: an offset that nobody entered would move every cell by up to ±${100 * usualOffsetShare} %.`;

/** Where the probe's delay comes from. */
export function delayWords({
  delay,
  delayFrom,
  foundDelay,
}: Pick<FuellingTable, 'delay' | 'delayFrom' | 'foundDelay'>): string {
  const whole = `${(delay.transportS + delay.lagS).toFixed(2)} s`;
  const width = foundDelay && Number.isFinite(foundDelay.halfWidthS) ? ` ± ${foundDelay.halfWidthS.toFixed(2)}` : '';
  switch (delayFrom) {
    case 'typed':
      return `Probe delay ${whole}, as typed.`;
    case 'found':
      return `Probe delay ${whole.replace(' s', `${width} s`)}, found in the log.`;
    case 'usual':
      return `Probe delay: the mixture moved too little to find it, so the usual ${whole} is taken.`;
  }
}
