/** A changed expression, and what became of it. */
export interface Mutant {
  file: string;
  /** `file:line:column-line:column`. */
  place: string;
  line: number;
  /** What kind of change. */
  kind: string;
  replacement: string;
  /** Killed, Timeout, Survived or NoCoverage. */
  status: string;
}

/** Those that no test noticed. */
export const survivors = (mutants: readonly Mutant[]): Mutant[] =>
  mutants.filter(({ status }) => status === 'Survived' || status === 'NoCoverage');

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
