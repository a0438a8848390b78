import type { Air } from '../air/air.ts';
import { standards, type Correction, type StandardId } from '../air/correction.ts';
import type { Finding } from './check.ts';

/** Found when a correction was asked for and the run has no air to correct with. */
export function airMissing(air: Air | undefined, wanted: StandardId): Finding | undefined {
  if (air || wanted === 'none') return undefined;
  return {
    id: 'air-missing',
    severity: 'mind',
    message: 'No air was recorded with this run, so its figures are uncorrected. Add the air to correct them.',
  };
}

/** Found when the air lies outside what the standard allows; the figure is computed all the same. */
export function airOutsideStandard(correction: Correction): Finding | undefined {
  if (correction.valid || correction.standard === 'none') return undefined;
  return {
    id: 'air-outside-standard',
    severity: 'mind',
    message: `${standards[correction.standard].name} is used outside its validity: ${correction.remark}.`,
  };
}
