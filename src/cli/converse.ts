import { runWalkthroughs } from '../core/converse/takeTurn.js';
import type { WalkthroughResult } from '../core/converse/walkthrough.js';
import { localNow } from '../server/time.js';
import { readyBot } from './bot.js';
import { loadBotFile, loadWalkthroughFile } from './files.js';

/** Runs every walkthrough of a file. */
export async function converseFile(botFile: string, walkthroughFile: string): Promise<WalkthroughResult[]> {
  const document = loadBotFile(botFile);
  const walkthroughs = loadWalkthroughFile(walkthroughFile);
  const { recogniser, encode } = await readyBot(document);
  return runWalkthroughs(recogniser, walkthroughs, { now: localNow(document.timeZone), encode });
}

/** The results for people: each walkthrough, what kept it from passing, and how it went. */
export function showWalkthroughs(results: readonly WalkthroughResult[]): string {
  const passed = results.filter((result) => result.passed).length;
  const each = results.map((result) =>
    [
      `${result.passed ? 'passed' : 'FAILED'}  ${result.name}: ${result.outcome.replace('_', ' ')} ${JSON.stringify(result.slots)}`,
      ...(result.passed ? [] : result.faults.map((fault) => `        ${fault}`)),
      ...(result.passed
        ? []
        : result.transcript.map((line) => `        ${line.from === 'user' ? '›' : ' '} ${line.text}`)),
    ].join('\n'),
  );
  return [...each, `${passed} of ${results.length} passed`].join('\n');
}
