import { build, type Plugin, type Rolldown } from 'vite';

const SUFFIX = '?nodeWorker';

/**
 * `import code from './x.worker.ts?nodeWorker'` gives the source of a self-contained module for a Node worker,
 * the same in development, tests and the built server.
 */
export function nodeWorker(): Plugin {
  return {
    name: 'node-worker',
    enforce: 'pre',
    async resolveId(source, importer) {
      if (!source.endsWith(SUFFIX)) return null;
      const resolved = await this.resolve(source.slice(0, -SUFFIX.length), importer, { skipSelf: true });
      return resolved ? `${resolved.id}${SUFFIX}` : null;
    },
    async load(id) {
      if (!id.endsWith(SUFFIX)) return null;
      const entry = id.slice(0, -SUFFIX.length);
      const result = await build({
        configFile: false,
        logLevel: 'error',
        ssr: { noExternal: true },
        build: {
          ssr: entry,
          write: false,
          target: 'node20',
          minify: false,
          rolldownOptions: { output: { format: 'es', codeSplitting: false } },
        },
      });
      const [output] = (Array.isArray(result) ? result : [result]) as Rolldown.RolldownOutput[];
      const chunk = output!.output[0];
      for (const module of chunk.moduleIds) if (!module.startsWith('\0')) this.addWatchFile(module);
      return `export default ${JSON.stringify(chunk.code)};`;
    },
  };
}
