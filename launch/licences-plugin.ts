import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

/** The folder of the package that a module is of; undefined for our own. */
function packageOf(module: string): string | undefined {
  return /^(.*\/node_modules\/(?:@[^/]+\/)?[^/]+)\//.exec(module.replaceAll('\\', '/'))?.[1];
}

/** What a package says of its use: its licence file, or at least the licence's name. */
function licenceIn(folder: string): string {
  const file = readdirSync(folder).find((name) => /^(licen[cs]e|copying)/i.test(name));
  if (file) return readFileSync(join(folder, file), 'utf8').trim();
  const about = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as { license?: string };
  return `Licence: ${about.license ?? 'not named'}`;
}

/**
 * Writes the licences of all packages in a build into one file beside it: the
 * comments that carry them are half of a script, and are read by nobody there.
 */
export function licences(fileName: string): Plugin {
  return {
    name: 'licences',
    generateBundle(_options, bundle) {
      const modules = Object.values(bundle).flatMap((output) => (output.type === 'chunk' ? output.moduleIds : []));
      const folders = [...new Set(modules.flatMap((module) => packageOf(module) ?? []))].filter((folder) =>
        existsSync(join(folder, 'package.json')),
      );
      // Many packages of one maker have one licence: it is written once.
      const packages = new Map<string, string[]>();
      for (const folder of folders.sort()) {
        const licence = licenceIn(folder);
        packages.set(licence, [...(packages.get(licence) ?? []), folder.split('/node_modules/').at(-1) ?? folder]);
      }
      const parts = Array.from(packages, ([licence, names]) => `${names.join('\n')}\n\n${licence}`);
      this.emitFile({ type: 'asset', fileName, source: `${parts.join('\n\n---\n\n')}\n` });
    },
  };
}
