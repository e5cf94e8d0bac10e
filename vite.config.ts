import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';
import { localFonts } from './vite/localFonts.js';
import { nodeWorker } from './vite/nodeWorker.js';

export default defineConfig({
  plugins: [localFonts(), nodeWorker(), sveltekit()],
  optimizeDeps: { exclude: ['carbon-icons-svelte'] },
  ssr: { noExternal: ['carbon-components-svelte', 'carbon-icons-svelte'] },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 900 },
  test: {
    include: ['src/**/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    pool: 'threads',
  },
});
