import type { Plugin } from 'vite';

/** Ends the development server when the process that started it is gone, before a page was ever asked for too. */
export function endWithKeeper(): Plugin {
  return {
    name: 'end-with-keeper',
    configureServer() {
      if (!process.channel) return;
      process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
      process.channel.unref();
    },
  };
}
