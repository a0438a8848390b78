import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

/** The guides that say where things belong name what is there. */
const guides = ['docs/architecture.md', 'CONTRIBUTING.md', 'README.md'];
const tracked = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  encoding: 'utf8',
}).split('\n');
const names = new Set(tracked.flatMap((path) => path.split('/').slice(-1)));
const folders = new Set(tracked.flatMap((path) => path.split('/').slice(0, -1)));

/** `a/{b,c}/d` as `a/b/d` and `a/c/d`. */
const expanded = (text: string): string[] => {
  const [whole, choices] = /\{([^}]*)\}/.exec(text) ?? [];
  return whole === undefined ? [text] : choices!.split(',').flatMap((choice) => expanded(text.replace(whole, choice)));
};

/** What a guide names: paths, files by their own names, folders. What is to be written stands in capitals. */
function named(text: string): string[] {
  const quoted = [...text.matchAll(/`([^`\s]+)`/g)].map(([, token]) => token!);
  const linked = [...text.matchAll(/\]\(([^)#:]+)\)/g)].map(([, token]) => token!);
  const isPath = (token: string) =>
    /^[a-z][\w./{},*-]*(\/|\.(tsx?|cjs|mjs|js|md|sql|png|json))$/.test(token) ||
    /^[a-z][\w-]*(\/[\w{},-]+)+$/.test(token);
  return [...quoted.filter(isPath), ...linked]
    .flatMap(expanded)
    .filter((token) => !/[A-Z*]/.test(token) || token.endsWith('.md'));
}

const isThere = (guide: string, token: string) => {
  const path = token.replace(/\/$/, '');
  const beside = `${guide.split('/').slice(0, -1).join('/') || '.'}/${path}`;
  return existsSync(path) || existsSync(beside) || names.has(path) || folders.has(path);
};

describe.each(guides)('%s', (guide) => {
  test('names nothing that is not there', () => {
    const tokens = named(readFileSync(guide, 'utf8'));
    expect(tokens.length).toBeGreaterThan(guide === 'docs/architecture.md' ? 100 : 3);
    expect(tokens.filter((token) => !isThere(guide, token))).toEqual([]);
  });
});
