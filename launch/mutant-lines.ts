/** A changed expression, and what became of it. */
export interface Mutant {
  /** `file:line:column-line:column`, all from 1. */
  place: string;
  /** The same as Stryker is told it. */
  pattern: string;
  /** What kind of change. */
  kind: string;
  replacement: string;
  /** Killed, Timeout, Survived or NoCoverage. */
  status: string;
}

/** Those that no test noticed. */
export const survivors = (mutants: readonly Mutant[]): Mutant[] =>
  mutants.filter(({ status }) => status === 'Survived' || status === 'NoCoverage');

/** What is known after a later round: of those that were alive, only what that round killed is. */
export function withLater(mutants: readonly Mutant[], later: readonly Mutant[]): Mutant[] {
  const key = ({ place, replacement }: Mutant) => `${place} ${replacement}`;
  const alive = new Set(survivors(later).map(key));
  const killed = new Set(later.map(key).filter((one) => !alive.has(one)));
  return mutants.map((one) => (killed.has(key(one)) ? { ...one, status: 'Killed' } : one));
}

/** Lines that may hold something to change, from 1: no blank one, no comment, no import, no lone bracket. */
export function codeLines(text: string): number[] {
  let inComment = false;
  let inImport = false;
  return text.split('\n').flatMap((line, at) => {
    const code = line.trim();
    const skipped = inComment || inImport || /^(\/\/|\/\*|import\b|export \{|export \*)/.test(code);
    if (!inComment && code.startsWith('/*')) inComment = true;
    if (inComment && code.includes('*/')) inComment = false;
    if (/^import\b/.test(code)) inImport = true;
    if (inImport && code.endsWith(';')) inImport = false;
    return skipped || !/[\p{L}\d]/u.test(code) ? [] : [at + 1];
  });
}
