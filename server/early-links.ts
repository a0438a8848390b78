import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';

/** The page's files as they were built, by source: what Vite writes beside them. */
const buildManifest = z.record(
  z.string(),
  z.object({
    file: z.string(),
    imports: z.array(z.string()).default([]),
    css: z.array(z.string()).default([]),
  }),
);
export type BuildManifest = z.output<typeof buildManifest>;

/** What starts the page, before all else, and the page's own code, which the document does not name. */
const pageSources = ['index.html', 'page.tsx'];

/** What was built into a folder; empty where the page was not built. */
export function builtInto(folder: string): BuildManifest {
  const path = join(folder, '.vite', 'manifest.json');
  return existsSync(path) ? buildManifest.parse(JSON.parse(readFileSync(path, 'utf8'))) : {};
}

/**
 * What the page at an address will ask for as soon as it runs, so that the
 * browser fetches it together with the document: the page's code, and the job
 * and the stage that the address names.
 * @returns a Link header, or undefined where nothing is known
 */
export function earlyLinks(path: string, built: BuildManifest): string | undefined {
  const [, job, stage] = /^\/jobs\/(\d+)\/(\w+)$/.exec(path) ?? [];
  const stageSource = `stages/${stage}/${stage}-stage.tsx`;
  const isStage = job !== undefined && built[stageSource] !== undefined;
  const { scripts, styles } = neededBy(isStage ? [...pageSources, stageSource] : pageSources, built);
  const links = [
    ...(isStage ? [`</api/jobs/${job}>; rel=preload; as=fetch; crossorigin`] : []),
    ...scripts.map((file) => `</${file}>; rel=modulepreload`),
    ...styles.map((file) => `</${file}>; rel=preload; as=style; crossorigin`),
  ];
  return links.length > 0 ? links.join(', ') : undefined;
}

/** The scripts and styles of some sources and of all that they import. */
function neededBy(sources: readonly string[], built: BuildManifest): { scripts: string[]; styles: string[] } {
  const seen = new Set<string>();
  const visit = (source: string) => {
    const chunk = built[source];
    if (!chunk || seen.has(source)) return;
    seen.add(source);
    chunk.imports.forEach(visit);
  };
  sources.forEach(visit);
  const chunks = [...seen].flatMap((source) => built[source] ?? []);
  return { scripts: chunks.map(({ file }) => file), styles: [...new Set(chunks.flatMap(({ css }) => css))] };
}
