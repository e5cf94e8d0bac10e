import { readFileSync } from 'node:fs';
import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {{ version: string }} */
const { version } = JSON.parse(readFileSync(new URL('package.json', import.meta.url), 'utf8'));

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: adapter(),
    version: { name: version },
    alias: { $core: 'src/core', $server: 'src/server', $ui: 'src/ui', $workers: 'src/workers' },
    // Every unsafe request is checked against the host in hooks.server.ts, whatever its content type.
    csrf: { trustedOrigins: ['*'] },
    csp: {
      mode: 'nonce',
      directives: {
        'default-src': ['none'],
        'script-src': ['self'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'worker-src': ['self'],
        'manifest-src': ['self'],
        'form-action': ['self'],
        'base-uri': ['none'],
        'frame-ancestors': ['none'],
      },
    },
  },
};
