import { loadBotFile, loadTestFile } from '../src/cli/files.js';
import type { BotDocument } from '../src/core/bot/document.js';
import type { TestLine } from '../src/core/formats/testFile.js';

/** What relative dates are reckoned from. */
export const NOW = '2026-03-04T09:30';

/** A bot with the lines that it is measured on. */
export interface Trial {
  name: string;
  document: BotDocument;
  lines: TestLine[];
}

/**
 * Reads the options of a measuring script: `--kept FILE`, and any number of `--bot NAME BOT TEST`.
 * @throws where there is no such option
 */
export function readOptions(options: readonly string[]): { kept: string | undefined; trials: Trial[] } {
  const given = [...options];
  const trials: Trial[] = [];
  let kept: string | undefined;
  while (given.length > 0) {
    const option = given.shift();
    if (option === '--kept') kept = given.shift();
    else if (option === '--bot') {
      const [name, bot, test] = given.splice(0, 3) as [string, string, string];
      trials.push({ name, document: loadBotFile(bot), lines: loadTestFile(test) });
    } else throw new Error(`There is no option ${option}.`);
  }
  return { kept, trials };
}
