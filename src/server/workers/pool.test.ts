import { describe, expect, it } from 'vitest';
import { startWorker } from './pool.js';

describe('a worker thread', () => {
  it('does every task, one at a time', async () => {
    const source =
      'let busy = 0; export default async (task) => { busy++; await new Promise(setImmediate); return [task, busy--]; };';
    const worker = startWorker<number, [number, number]>(source);
    const tasks = [1, 2, 3, 4, 5];
    expect(await Promise.all(tasks.map((task) => worker.run(task)))).toEqual(tasks.map((task) => [task, 1]));
    await worker.destroy();
  });

  it('takes and gives typed arrays and maps', async () => {
    const worker = startWorker<Map<string, Float32Array>, number>(
      'export default (task) => task.get("a").reduce((sum, value) => sum + value, 0);',
    );
    expect(await worker.run(new Map([['a', new Float32Array([1, 2.5])]]))).toBe(3.5);
    await worker.destroy();
  });

  it('tells what went wrong, and goes on with the next task', async () => {
    const worker = startWorker<string, string>(
      'export default (task) => { if (task === "bad") throw new Error("no such word"); return task; };',
    );
    await expect(worker.run('bad')).rejects.toThrow('no such word');
    expect(await worker.run('good')).toBe('good');
    await worker.destroy();
  });

  it('can be stopped while it is starting', async () => {
    const workers = Array.from({ length: 4 }, () => startWorker<string, string>('export default (task) => task;'));
    await Promise.all(workers.map((worker) => worker.destroy()));
    await new Promise((resolve) => setTimeout(resolve, 200));
  });
});
