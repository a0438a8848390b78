import { Refusal } from '../../refusal.ts';

/** Why nothing can be made of a recording: something is wrong with it, or the program made a mistake. */
export interface Unusable {
  why: string;
  fault: 'recording' | 'program';
  /** What was thrown, for the log. */
  cause: unknown;
}

/** Tells a refusal, which is the recording's fault, from a mistake of the program. */
export function unusableFor(error: unknown): Unusable {
  if (error instanceof Refusal) return { why: error.message, fault: 'recording', cause: error };
  return {
    why: `Suvok made a mistake with it (${String(error)}). Its recording is kept and is not at fault; please report this.`,
    fault: 'program',
    cause: error,
  };
}
