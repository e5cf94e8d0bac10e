import { describe, expect, it } from 'vitest';
import { startThreads } from './pool.js';

describe('threads', () => {
  it('does every task, one at a time', async () => {
    const source =
      'let busy = 0; export default async (task) => { busy++; await new Promise(setImmediate); return [task, busy--]; };';
    const worker = startThreads<number, [number, number]>(source);
    const tasks = [1, 2, 3, 4, 5];
    expect(await Promise.all(tasks.map((task) => worker.run(task)))).toEqual(tasks.map((task) => [task, 1]));
    await worker.destroy();
  });

  it('takes and gives typed arrays and maps', async () => {
    const worker = startThreads<Map<string, Float32Array>, number>(
      'export default (task) => task.get("a").reduce((sum, value) => sum + value, 0);',
    );
    expect(await worker.run(new Map([['a', new Float32Array([1, 2.5])]]))).toBe(3.5);
    await worker.destroy();
  });

  it('tells what went wrong, and goes on with the next task', async () => {
    const worker = startThreads<string, string>(
      'export default (task) => { if (task === "bad") throw new Error("no such word"); return task; };',
    );
    await expect(worker.run('bad')).rejects.toThrow('no such word');
    expect(await worker.run('good')).toBe('good');
    await worker.destroy();
  });

  it('wait for a task that runs native code, and drop those that have not begun', async () => {
    const source = 'export default (task) => new Promise((done) => setTimeout(() => done(task), 300));';
    const worker = startThreads<number, number>(source, { native: true });
    const [running, waiting] = [worker.run(1), worker.run(2)];
    const dropped = expect(waiting).rejects.toThrow();
    await new Promise((resolve) => setTimeout(resolve, 150));
    await worker.destroy();
    expect(await running).toBe(1);
    await dropped;
  });

  it('do tasks in the order they were asked for, however many wait', async () => {
    const source = 'export default async (task) => { await new Promise(setImmediate); return task; };';
    const worker = startThreads<number, number>(source);
    const done: number[] = [];
    const ask = (task: number) => worker.run(task).then((one) => done.push(one));
    const tasks = Array.from({ length: 60 }, (_, task) => task);
    // Some come while others wait: those that came first go first.
    const first = tasks.slice(0, 30).map(ask);
    await first[4];
    await Promise.all([...first, ...tasks.slice(30).map(ask)]);
    expect(done).toEqual(tasks);
    await worker.destroy();
  });

  it('can be stopped while it is starting', async () => {
    const workers = Array.from({ length: 4 }, () => startThreads<string, string>('export default (task) => task;'));
    await Promise.all(workers.map((worker) => worker.destroy()));
    await new Promise((resolve) => setTimeout(resolve, 200));
  });
});
