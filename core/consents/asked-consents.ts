import type { EngineKind } from '../engine/engine-kind.ts';
/** A text that an owner is asked to agree to. */
export interface AskedTemplate {
  id: number;
  revision: number;
  title: string;
  asked: 'every job' | 'settings changed' | 'diesel' | 'by hand';
}

/** What tells of a job whether a consent is asked for. */
export interface ConsentedJob {
  car: { ignition: EngineKind | null };
  setups: readonly unknown[];
  consents: readonly { templateId: number | null; version: number; name: string; signedAt: string }[];
}

/** A consent of a job: signed or not, and whether its text was changed since. */
export interface JobConsent<Template extends AskedTemplate = AskedTemplate> {
  template: Template;
  signed: ConsentedJob['consents'][number] | undefined;
  /** The text that was signed is an older version. */
  isOlder: boolean;
  /** It applies and nobody has signed it: a gap that is shown and blocks nothing. */
  isMissing: boolean;
}

/** Every consent with how it stands in a job: those that apply or were signed first. */
export function jobConsents<Template extends AskedTemplate>(
  job: ConsentedJob,
  templates: readonly Template[],
): JobConsent<Template>[] {
  return templates
    .map((template) => {
      const signed = job.consents.filter(({ templateId }) => templateId === template.id).at(-1);
      const isMissing = !signed && applies(template, job);
      return { template, signed, isOlder: signed !== undefined && signed.version < template.revision, isMissing };
    })
    .sort(
      (one, other) =>
        Number(other.isMissing || other.signed !== undefined) - Number(one.isMissing || one.signed !== undefined),
    );
}

function applies({ asked }: AskedTemplate, { car, setups }: ConsentedJob): boolean {
  switch (asked) {
    case 'every job':
      return true;
    case 'settings changed':
      return setups.length > 1;
    case 'diesel':
      return car.ignition === 'compression';
    case 'by hand':
      return false;
  }
}
