import type { Recognition } from '../core/recognise/recognition.js';
import { localNow } from '../server/time.js';
import { readyBot } from './bot.js';
import { loadBotFile, loadTestFile } from './files.js';

/** The line of output for a message. */
function outputLine({ text, intent, confidence, decision, ranking, slots }: Recognition): string {
  const read = slots.map(({ slot, entity, start, end, text: words, value }) => ({
    slot,
    entity,
    start,
    end,
    text: words,
    value,
  }));
  return JSON.stringify({ text, intent, confidence, decision, ranking, slots: read });
}

/** Recognises every message of a file. @param now where a line names no time of its own */
export async function recogniseFile(botFile: string, inFile: string, now?: string): Promise<string[]> {
  const document = loadBotFile(botFile);
  const lines = loadTestFile(inFile);
  const { recogniser, vectors } = await readyBot(
    document,
    lines.map((line) => line.text),
  );
  const fallback = now ?? localNow(document.timeZone);
  return lines.map((line) => outputLine(recogniser.recognise(line.text, vectors, line.now ?? fallback)));
}
