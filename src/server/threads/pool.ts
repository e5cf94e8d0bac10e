import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Piscina } from 'piscina';

/** Threads that do tasks in the order in which they were asked for. */
export interface Threads<Task, Result> {
  /** @param signal ends the thread and the task when it is given */
  run(task: Task, signal?: AbortSignal): Promise<Result>;
  destroy(): Promise<void>;
}

/** How long a thread may take over the end of its task, in milliseconds. */
const LONGEST_END = 10_000;

/**
 * Starts threads from the source of a self-contained module whose default export does a task.
 * @param options `most`: threads that there are at once; `memory`: what each may take, in MB; `native`: whether they run
 *   native code, which ends the whole program where its thread is taken away in the middle: tasks that run are waited for
 */
export function startThreads<Task, Result>(
  source: string,
  { most = 1, memory, native = false }: { most?: number; memory?: number; native?: boolean } = {},
): Threads<Task, Result> {
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-'));
  const filename = path.join(folder, 'worker.mjs');
  writeFileSync(filename, source, { mode: 0o600 });
  const pool = new Piscina<Task, Result>({
    filename,
    // A thread starts with its first task.
    minThreads: 0,
    maxThreads: most,
    idleTimeout: Infinity,
    concurrentTasksPerWorker: 1,
    // Otherwise a task that no thread could take goes to the end of the line, and may do so again and again.
    stricterFIFO: true,
    closeTimeout: LONGEST_END,
    ...(memory === undefined ? {} : { resourceLimits: { maxOldGenerationSizeMb: memory } }),
  });
  let stopping = false;
  // A thread that is stopped while it starts no longer finds its file.
  pool.on('error', (error: Error) => {
    // A thread that took too much is told of by its task.
    if (!stopping && memory === undefined) throw error;
  });
  return {
    run: (task, signal) => pool.run(task, signal ? { signal } : {}),
    async destroy() {
      stopping = true;
      await (native ? pool.close({ force: true }) : pool.destroy());
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
