import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { sharedPath } from '../contract/report/shared-link.ts';

/** The page's files as they were built, by source: what Vite writes beside them. */
const buildManifest = z.record(
  z.string(),
  z.object({
    file: z.string(),
    imports: z.array(z.string()).default([]),
    css: z.array(z.string()).default([]),
    /** Fonts and pictures that its styles name. */
    assets: z.array(z.string()).optional(),
  }),
);
export type BuildManifest = z.output<typeof buildManifest>;

/** What starts the page, before all else. */
const startSource = 'index.html';
/** The page's own code beside it, which the document does not name. */
const pageSources = [startSource, 'page.tsx'];

/** What was built into a folder; empty where the page was not built. */
export function builtInto(folder: string): BuildManifest {
  const path = join(folder, '.vite', 'manifest.json');
  return existsSync(path) ? buildManifest.parse(JSON.parse(readFileSync(path, 'utf8'))) : {};
}

/**
 * What the page at an address will ask for as soon as it runs, so that the
 * browser fetches it together with the document: the page's code and letters,
 * who is signed in, and the job and the stage that the address names.
 * @returns a Link header, or undefined where nothing is known
 */
export function earlyLinks(path: string, built: BuildManifest): string | undefined {
  const [, job, stage] = /^\/jobs\/(\d+)\/(\w+)$/.exec(path) ?? [];
  const stageSource = `stages/${stage}/${stage}-stage.tsx`;
  const isStage = job !== undefined && built[stageSource] !== undefined;
  const { scripts, styles, letters } = neededBy(isStage ? [...pageSources, stageSource] : pageSources, built);
  if (scripts.length === 0) return undefined;
  const starts = neededBy([startSource], built).scripts;
  const fetched = (address: string) => `<${address}>; rel=preload; as=fetch; crossorigin`;
  return [
    // What starts the page and the worker comes over the connection that there is already, before all else.
    ...starts.map((file) => `</${file}>; rel=modulepreload; fetchpriority=high`),
    ...(isStage ? [fetched(`/api/jobs/${job}`)] : []),
    ...scripts.filter((file) => !starts.includes(file)).map((file) => `</${file}>; rel=modulepreload`),
    ...styles.map((file) => `</${file}>; rel=preload; as=style; crossorigin`),
    ...letters.map((file) => `</${file}>; rel=preload; as=font; type="font/woff2"; crossorigin`),
    // Everybody's page asks who is signed in; what was shared is read without an account.
    ...(path.startsWith(sharedPath('')) ? [] : [fetched('/api/account')]),
  ].join(', ');
}

/** The letters that every screen is written in: those of other alphabets are fetched where a text has them. */
const usualLetters = /archivo-latin-wdth-normal[^/]*\.woff2$/;

/** The scripts, styles and letters of some sources and of all that they import. */
function neededBy(
  sources: readonly string[],
  built: BuildManifest,
): Record<'scripts' | 'styles' | 'letters', string[]> {
  const seen = new Set<string>();
  const visit = (source: string) => {
    const chunk = built[source];
    if (!chunk || seen.has(source)) return;
    seen.add(source);
    chunk.imports.forEach(visit);
  };
  sources.forEach(visit);
  const chunks = [...seen].flatMap((source) => built[source] ?? []);
  const each = (files: string[]) => [...new Set(files)];
  return {
    scripts: chunks.map(({ file }) => file),
    styles: each(chunks.flatMap(({ css }) => css)),
    letters: each(chunks.flatMap(({ assets }) => assets ?? [])).filter((file) => usualLetters.test(file)),
  };
}
