import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { PurgeCSS } from 'purgecss';
import type { Plugin } from 'vite';

const LIBRARY = path.join(
  path.dirname(createRequire(import.meta.url).resolve('carbon-components-svelte/css/all.css')),
  '../src',
);

/** Names that a file takes from the library. */
const TAKEN = /import\s*\{([^}]*)\}\s*from\s*['"]carbon-components-svelte['"]/g;
/** Files of the library that a file of it refers to. */
const REFERRED = /(?:from|import)\s*["'](\.[^"']+)["']/g;
/** A class whose end is put in when it runs: `bx--btn--${kind}`. */
const PUT_TOGETHER = /(bx--[\w-]*-)\$?\{/g;

const FONTS = /@font-face\s*\{[^}]*\}/g;
const OTHER_THEMES = /:root\[theme=g(?:10|80|90)\]\s*\{[^}]*\}/g;

function svelteFiles(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.svelte'))
    .map((file) => path.join(folder, file));
}

/** Where each component of the library lies. */
function components(): Map<string, string> {
  const found = new Map<string, string>();
  for (const file of svelteFiles(LIBRARY)) found.set(path.basename(file, '.svelte'), file);
  return found;
}

/** The sources of the components in use, with those that they are made of. */
function sourcesInUse(folder: string): string[] {
  const lies = components();
  const names = svelteFiles(folder).flatMap((file) =>
    [...readFileSync(file, 'utf8').matchAll(TAKEN)].flatMap(([, names]) =>
      names!.split(',').map((name) => name.trim()),
    ),
  );
  const sources = new Map<string, string>();
  const take = (file: string): void => {
    if (sources.has(file)) return;
    const source = readFileSync(file, 'utf8');
    sources.set(file, source);
    for (const [, other] of source.matchAll(REFERRED)) {
      const target = path.resolve(path.dirname(file), other!);
      const found = ['', '.js', '/index.js']
        .map((end) => target + end)
        .find((name) => /\.\w+$/.test(name) && existsSync(name));
      if (found) take(found);
    }
  };
  for (const name of names) if (lies.has(name)) take(lies.get(name)!);
  return [...sources.values()];
}

/**
 * Cuts the stylesheet of the library down to the components in use and to our two themes. Its fonts lie at an outside
 * address; the application ships its own, so those rules go.
 * @param folder of the components of the application
 */
export function carbonStyles(folder: string): Plugin {
  return {
    name: 'carbon-styles',
    enforce: 'pre',
    async transform(code, id) {
      if (!/carbon-components-svelte\/css\/.*\.css/.test(id)) return null;
      const sources = sourcesInUse(folder);
      const prefixes = sources.flatMap((source) => [...source.matchAll(PUT_TOGETHER)].map(([, prefix]) => prefix!));
      const [result] = await new PurgeCSS().purge({
        content: sources.map((raw) => ({ raw, extension: 'svelte' })),
        css: [{ raw: code }],
        defaultExtractor: (content) => content.match(/[\w-]+/g) ?? [],
        // What is no class of the library stays: its rules for elements, and the themes.
        safelist: { standard: [/^(?!bx--)/, ...prefixes.map((prefix) => new RegExp(`^${prefix}`))] },
        fontFace: true,
        keyframes: true,
      });
      return { code: result!.css.replace(FONTS, '').replace(OTHER_THEMES, ''), map: null };
    },
  };
}
