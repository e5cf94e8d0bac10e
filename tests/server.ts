import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** A built server running on a database of its own. */
export interface RunningServer {
  url: string;
  data: string;
  /** Ends the process as a signal does, and waits until it is gone. */
  stop(signal?: NodeJS.Signals): Promise<void>;
  /** Starts it again on the same data. */
  restart(): Promise<void>;
  /** Stops it and takes its data away. */
  remove(): Promise<void>;
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

export async function answers(url: string): Promise<void> {
  for (let attempt = 0; attempt < 200; attempt++) {
    const ok = await fetch(`${url}/api/health`).then(
      (response) => response.ok,
      () => false,
    );
    if (ok) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`The server at ${url} does not answer.`);
}

/** The demo's data, filled once for all tests of a run by `demoData.ts`. */
function demoData(): string {
  const folder = process.env['REED_GATE_TEST_DEMO'];
  if (folder === undefined) throw new Error('The demo was not filled in before the tests.');
  return folder;
}

/**
 * @param from `demo` for a copy of the demo, `empty` for nothing
 * @param more of the server's environment
 */
export async function startServer(from: 'demo' | 'empty', more: Record<string, string> = {}): Promise<RunningServer> {
  const data = mkdtempSync(path.join(tmpdir(), 'reed-gate-e2e-'));
  if (from === 'demo') cpSync(demoData(), data, { recursive: true });
  const port = await freePort();
  const url = `http://localhost:${port}`;
  let child: ChildProcess;
  let stopping = false;

  async function start(): Promise<void> {
    stopping = false;
    child = spawn(process.execPath, ['serve.js'], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        HOST: '127.0.0.1',
        PORT: String(port),
        REED_GATE_DATA: data,
        LOG_LEVEL: 'silent',
        NODE_ENV: 'production',
        ...more,
      },
    });
    const { pid } = child;
    child.once('exit', (code) => {
      if (!stopping && pid === child.pid) process.stderr.write(`The server of a test ended by itself (${code}).\n`);
    });
    await answers(url);
  }

  const stop = (signal: NodeJS.Signals = 'SIGTERM'): Promise<void> =>
    new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) return resolve();
      stopping = true;
      child.once('exit', () => resolve());
      child.kill(signal);
    });

  await start();
  return {
    url,
    data,
    stop,
    restart: start,
    async remove() {
      await stop();
      rmSync(data, { recursive: true, force: true });
    },
  };
}
