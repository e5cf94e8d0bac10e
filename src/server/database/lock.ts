import { chmodSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Libsql from 'libsql';
import { StartError } from '../trouble.js';

/** What keeps a second server from a data folder; the system takes it away with the process, however that ends. */
export interface FolderLock {
  release(): void;
}

const WHO = 'server.txt';

/** Who has the folder, as far as it says so. */
function holder(folder: string): string {
  try {
    return ` (${readFileSync(path.join(folder, WHO), 'utf8').trim().slice(0, 200)})`;
  } catch {
    // It has not said so yet.
    return '';
  }
}

/**
 * Takes a data folder for one server alone.
 * @param who is told to another that wants it
 * @throws StartError where another has it
 */
export function lockFolder(folder: string, who: string): FolderLock {
  const file = path.join(folder, 'server.lock');
  const lock = new Libsql(file, { timeout: 0 });
  try {
    chmodSync(file, 0o600);
    lock.exec('PRAGMA locking_mode = EXCLUSIVE');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if (!/^SQLITE_(BUSY|LOCKED)/.test(String((error as { code?: unknown }).code))) throw error;
    throw new StartError(
      `Another Reed Gate${holder(folder)} uses the data in ${folder}. Stop it first, or name another folder with REED_GATE_DATA.`,
    );
  }
  writeFileSync(path.join(folder, WHO), `${who}\n`, { mode: 0o600 });
  return { release: () => lock.close() };
}
