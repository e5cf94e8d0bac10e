import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it, vi } from 'vitest';
import { startThreads, TaskError, TimeLimitError } from './pool.js';

const TERMS = { name: 'try' };

describe('threads', () => {
  it('does every task, one at a time', async () => {
    const source =
      'let busy = 0; export default async (task) => { busy++; await new Promise(setImmediate); return [task, busy--]; };';
    const worker = startThreads<number, [number, number]>(source);
    const tasks = [1, 2, 3, 4, 5];
    expect(await Promise.all(tasks.map((task) => worker.run(task, TERMS)))).toEqual(tasks.map((task) => [task, 1]));
    await worker.destroy();
  });

  it('takes and gives typed arrays and maps', async () => {
    const worker = startThreads<Map<string, Float32Array>, number>(
      'export default (task) => task.get("a").reduce((sum, value) => sum + value, 0);',
    );
    expect(await worker.run(new Map([['a', new Float32Array([1, 2.5])]]), TERMS)).toBe(3.5);
    await worker.destroy();
  });

  it('tells what went wrong, and goes on with the next task', async () => {
    const worker = startThreads<string, string>(
      'export default (task) => { if (task === "bad") throw new Error("no such word"); return task; };',
    );
    await expect(worker.run('bad', TERMS)).rejects.toThrow('no such word');
    expect(await worker.run('good', TERMS)).toBe('good');
    await worker.destroy();
  });

  it('wait for a task that runs native code, and drop those that have not begun', async () => {
    const source = 'export default (task) => new Promise((done) => setTimeout(() => done(task), 300));';
    const worker = startThreads<number, number>(source, { native: true });
    const [running, waiting] = [worker.run(1, TERMS), worker.run(2, TERMS)];
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
    const ask = (task: number) => worker.run(task, TERMS).then((one) => done.push(one));
    const tasks = Array.from({ length: 60 }, (_, task) => task);
    // Some come while others wait: those that came first go first.
    const first = tasks.slice(0, 30).map(ask);
    await first[4];
    await Promise.all([...first, ...tasks.slice(30).map(ask)]);
    expect(done).toEqual(tasks);
    await worker.destroy();
  });

  it('tell which task failed, and keep what it threw', async () => {
    const worker = startThreads<{ what: string }, unknown>(
      'export default ({ what }) => { if (what === "throw") throw new RangeError("no such word"); return () => what; };',
    );
    const thrown = (await worker
      .run({ what: 'throw' }, { name: 'read words' })
      .catch((error: unknown) => error)) as TaskError;
    expect(thrown).toBeInstanceOf(TaskError);
    expect(thrown.message).toBe('the task “read words” failed: no such word');
    expect(thrown.cause).toMatchObject({ name: 'RangeError', message: 'no such word' });
    // A function cannot be sent.
    await expect(worker.run({ what: 'give' }, { name: 'read words' })).rejects.toThrow(
      /“read words” failed: .*(sent|cloned)/,
    );
    await worker.destroy();
  });

  it('end a task that takes longer than it may, and do the next', async () => {
    const source = 'export default ({ ms }) => { const end = Date.now() + ms; while (Date.now() < end); return ms; };';
    const worker = startThreads<{ ms: number }, number>(source);
    const slow = worker.run({ ms: 60_000 }, { name: 'count', limit: 300 });
    const next = worker.run({ ms: 1 }, { name: 'count', limit: 60_000 });
    await expect(slow).rejects.toThrow(new TimeLimitError('count', 0.3));
    expect(await next).toBe(1);
    await worker.destroy();
  });

  it('count the time of a task from when it begins', async () => {
    const source = 'export default ({ ms }) => new Promise((done) => setTimeout(() => done(ms), ms));';
    const worker = startThreads<{ ms: number }, number>(source);
    await worker.run({ ms: 1 }, TERMS);
    const all = [700, 700, 700].map((ms) => worker.run({ ms }, { name: 'wait', limit: 1500 }));
    expect(await Promise.all(all)).toEqual([700, 700, 700]);
    await worker.destroy();
  });

  it('answer what a task asks for while it goes on', async () => {
    const source = `export default ({ port, asks }) => new Promise((done) => {
      port.on('message', ({ answer, fault }) => done(answer ?? fault));
      port.postMessage({ number: 1, question: asks });
    });`;
    const worker = startThreads<{ asks: string }, string>(source);
    const answers = (question: unknown) =>
      question === 'name' ? Promise.resolve('Wren') : Promise.reject(new Error('nobody knows'));
    expect(await worker.run({ asks: 'name' }, { name: 'ask', answers })).toBe('Wren');
    expect(await worker.run({ asks: 'age' }, { name: 'ask', answers })).toBe('nobody knows');
    await worker.destroy();
  });

  it('leave no folder, and sweep away those of processes that were killed', async () => {
    const folders = () => readdirSync(tmpdir()).filter((name) => name.startsWith(`reed-gate-${process.pid}-`));
    const before = folders();
    // No process has so high a number.
    const left = path.join(tmpdir(), 'reed-gate-999999999-1-abcdef');
    mkdirSync(left);
    vi.resetModules();
    const fresh = await import('./pool.js');
    const worker = fresh.startThreads<{ what: string }, string>('export default ({ what }) => what;');
    expect(existsSync(left)).toBe(false);
    expect(folders().length).toBe(before.length + 1);
    expect(await worker.run({ what: 'this' }, TERMS)).toBe('this');
    await worker.destroy();
    expect(folders()).toEqual(before);
    rmSync(left, { recursive: true, force: true });
  });

  it('can be stopped while it is starting', async () => {
    const workers = Array.from({ length: 4 }, () => startThreads<string, string>('export default (task) => task;'));
    await Promise.all(workers.map((worker) => worker.destroy()));
    await new Promise((resolve) => setTimeout(resolve, 200));
  });
});
