import { isNumeric, keyOf } from '../../../../core/setup/item.ts';
import { fieldIn, fields, setupNamed, type AddressedJob, type Field } from './view-address.ts';

/** A setting whose word in the address leads nowhere, and why. */
export interface AddressProblem {
  field: Field;
  sentence: string;
}

/**
 * What an address names that is not there, and what it asks for that is not
 * understood: something else is shown then, and the reader must know.
 */
export function addressProblems(address: URLSearchParams, job: AddressedJob): AddressProblem[] {
  return (Object.keys(fields) as Field[]).flatMap((field) => {
    const text = address.get(field);
    if (text === null) return [];
    if (fieldIn(address, field) === undefined)
      return [{ field, sentence: `“${text}” is not understood as ${fieldWords[field]}.` }];
    const missing = missingIn(address, field, job);
    return missing ? [{ field, sentence: missing }] : [];
  });
}

/** What a setting names that the job does not have, as a sentence. */
function missingIn(address: URLSearchParams, field: Field, job: AddressedJob): string | undefined {
  switch (field) {
    case 'setup':
    case 'against':
    case 'baseline': {
      const letter = fieldIn(address, field);
      return setupNamed(job, letter) ? undefined : `This job has no setup ${letter}.`;
    }
    case 'also':
    case 'hide': {
      const missing = fieldIn(address, field)?.filter((letter) => !setupNamed(job, letter)) ?? [];
      return missing.length > 0 ? `This job has no setup ${missing.join(', ')}.` : undefined;
    }
    case 'version': {
      const version = fieldIn(address, field);
      const known = [job.baseline, ...job.earlierBaselines].some((baseline) => baseline?.version === version);
      return known ? undefined : `The baseline was never frozen as version ${version}.`;
    }
    case 'runs':
      return missingRuns(fieldIn(address, field), job);
    case 'againstRuns':
      // Runs beside another job belong to that one.
      return address.has('from') ? undefined : missingRuns(fieldIn(address, field), job);
    case 'item': {
      const key = fieldIn(address, field);
      const keys = new Set(job.setups.flatMap(({ items }) => items.filter(isNumeric).map(keyOf)));
      // One item, or two that were moved together.
      const known =
        keys.has(key ?? '') ||
        [...keys].some((first) => key?.startsWith(`${first}+`) && keys.has(key.slice(first.length + 1)));
      return known ? undefined : `No setup of this job changes “${key}”.`;
    }
    default:
      return undefined;
  }
}

function missingRuns(labels: readonly string[] = [], { runs }: Pick<AddressedJob, 'runs'>): string | undefined {
  const missing = labels.filter((label) => !runs.some((run) => run.label === label));
  return missing.length > 0 ? `This job has no run ${missing.join(', ')}.` : undefined;
}

/** A setting in words, for a sentence about what is wrong with it. */
const fieldWords: Record<Field, string> = {
  setup: 'a setup',
  against: 'a setup',
  baseline: 'a setup',
  from: 'something to compare with from elsewhere',
  version: 'a version of the baseline',
  standard: 'a correction standard',
  share: 'a share of the correction, in percent',
  smoothing: 'a smoothing span',
  span: 'a smoothing span',
  band: 'a band of engine speed',
  runs: 'a list of runs',
  againstRuns: 'a list of runs',
  raw: 'whether unsmoothed points are shown',
  at: 'an engine speed',
  show: 'curves, steps, response, road or tests',
  lanes: 'a list of lanes',
  present: 'whether it is shown large',
  item: 'a changed item',
  zoom: 'a range of engine speeds',
  crank: 'a loss between crank and wheels',
  gain: 'a unit of gains',
  mixture: 'a way to give the mixture',
  axis: 'an axis of the lanes',
  also: 'a list of setups',
  hide: 'a list of setups',
  singles: 'which single runs are drawn',
  power: 'a unit of power',
  torque: 'a unit of torque',
};
