import type { FamilyPair } from './job-claims.ts';

/** What is needed of a setup to be the best of a job. */
export interface BestCandidate {
  setupId: number;
  decision?: 'keep' | 'go back' | 'try further' | null | undefined;
  /** Its latest counted run broke a limit, or its log has a finding of severity stop. */
  unsafe?: boolean | undefined;
  onBaseline?: FamilyPair | undefined;
}

/**
 * The setup that gives most of those that may be called so: a gain that is
 * claimed among all of the job's, that nobody went back from, and that broke
 * no limit. Undefined where there is none: the largest reading by chance is no best.
 */
export function bestSetup(candidates: readonly BestCandidate[]): number | undefined {
  let best: { setupId: number; kw: number } | undefined;
  for (const { setupId, decision, unsafe, onBaseline } of candidates) {
    if (decision === 'go back' || unsafe || onBaseline?.jobClaim !== 'gain') continue;
    const kw = onBaseline.difference.difference;
    if (!best || kw > best.kw) best = { setupId, kw };
  }
  return best?.setupId;
}
