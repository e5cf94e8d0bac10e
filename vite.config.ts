import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';
import { carbonStyles } from './vite/carbonStyles.js';
import { endWithKeeper } from './vite/endWithKeeper.js';
import { nodeWorker } from './vite/nodeWorker.js';

export default defineConfig({
  plugins: [carbonStyles('src'), nodeWorker(), endWithKeeper(), sveltekit()],
  ssr: { noExternal: ['carbon-components-svelte'] },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 900 },
  test: {
    include: ['src/**/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    pool: 'forks',
  },
});
