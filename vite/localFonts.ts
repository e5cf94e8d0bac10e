import type { Plugin } from 'vite';

/** Carbon's stylesheet points its fonts at an outside address; the application ships its own, so those rules go. */
export function localFonts(): Plugin {
  return {
    name: 'local-fonts',
    enforce: 'pre',
    transform(code, id) {
      if (!/carbon-components-svelte\/css\/.*\.css/.test(id)) return null;
      return { code: code.replace(/@font-face\s*\{[^}]*\}/g, ''), map: null };
    },
  };
}
