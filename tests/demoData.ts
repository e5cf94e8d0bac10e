import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Fills in the demo once, however long that takes, before any test begins; it is taken away after the last. */
export default function fillDemo(): () => void {
  const folder = mkdtempSync(path.join(tmpdir(), 'reed-gate-demo-'));
  const { status } = spawnSync('./reed', ['seed', '--demo', 'demo', '--data', folder], { stdio: 'inherit' });
  if (status !== 0) throw new Error('The demo could not be filled in.');
  process.env['REED_GATE_TEST_DEMO'] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
