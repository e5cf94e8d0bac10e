import { answerAll } from '../core/recognise/answer.js';
import type { Recognition } from '../core/recognise/recognition.js';
import { localNow } from '../server/time.js';
import { readyBot } from './bot.js';
import { loadBotFile, loadTestFile } from './files.js';

/** The line of output for a message. */
function outputLine({ text, intent, confidence, decision, ranking, slots }: Recognition): string {
  const spans = slots.map(({ slot, entity, start, end, text: words, value }) => ({
    slot,
    entity,
    start,
    end,
    text: words,
    value,
  }));
  return JSON.stringify({ text, intent, confidence, decision, ranking, slots: spans });
}

/** Recognises every message of a file. @param now where a line names no time of its own */
export async function recogniseFile(botFile: string, inFile: string, now?: string): Promise<string[]> {
  const document = loadBotFile(botFile);
  const lines = loadTestFile(inFile);
  const { recogniser, encode } = await readyBot(document);
  const fallback = now ?? localNow(document.timeZone);
  return (await answerAll(recogniser, lines, fallback, encode)).map(outputLine);
}
