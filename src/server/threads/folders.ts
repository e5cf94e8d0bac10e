import { lstatSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const PREFIX = 'reed-gate-';

/** When a process began, by the system's reckoning, so that another of the same number is not taken for it; empty where that is not told. */
function beginningOf(process: number): string {
  try {
    const told = readFileSync(`/proc/${process}/stat`, 'utf8');
    return told.slice(told.lastIndexOf(')') + 2).split(' ')[19] ?? '';
  } catch {
    return '';
  }
}

/** What a temporary folder of this process is called, but for its end. */
export const ownFolderName = (): string => `${PREFIX}${process.pid}-${beginningOf(process.pid)}-`;

function isRunning(number: number, began: string): boolean {
  try {
    process.kill(number, 0);
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
  return began === '' || beginningOf(number) === began;
}

const OWN = new RegExp(`^${PREFIX}(\\d+)-(\\d*)-\\w+$`);
let swept = false;

/** Takes away the temporary folders of processes that were killed; once a process. */
export function sweepFolders(): void {
  if (swept) return;
  swept = true;
  for (const name of readdirSync(tmpdir())) {
    const [, number, began] = OWN.exec(name) ?? [];
    if (number === undefined || isRunning(Number(number), began ?? '')) continue;
    const folder = path.join(tmpdir(), name);
    // Another start may have swept it meanwhile; what is another person's is left to them.
    const owner = lstatSync(folder, { throwIfNoEntry: false })?.uid;
    if (owner === process.getuid?.()) rmSync(folder, { recursive: true, force: true });
  }
}
