import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Piscina } from 'piscina';

/** A worker thread that does one kind of task. */
export interface WorkerThread<Task, Result> {
  run(task: Task): Promise<Result>;
  destroy(): Promise<void>;
}

/** Starts a thread from the source of a self-contained module whose default export does the task. */
export function startWorker<Task, Result>(source: string): WorkerThread<Task, Result> {
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-'));
  const filename = path.join(folder, 'worker.mjs');
  writeFileSync(filename, source);
  const pool = new Piscina<Task, Result>({ filename, minThreads: 1, maxThreads: 1, idleTimeout: Infinity });
  let stopping = false;
  // A thread that is stopped while it starts no longer finds its file.
  pool.on('error', (error: Error) => {
    if (!stopping) throw error;
  });
  return {
    run: (task) => pool.run(task),
    async destroy() {
      stopping = true;
      await pool.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
