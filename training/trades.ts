import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { emptyBot, type BotDocument, type Utterance } from '../src/core/bot/document.js';
import type { Trial } from './trials.js';

/** The style of lines that a designer wrote to teach a bot; all others are customers' messages. */
export const UTTERANCE = 'utterance';

/** A line of the corpus. */
export interface CorpusLine {
  text: string;
  /** `null`: outside the bot. */
  intent: string | null;
  style: string;
}

/** Trades that no encoder learns from, so that there is something honest to choose by. */
export const KEPT_APART = JSON.parse(
  readFileSync(path.join(import.meta.dirname, 'kept-apart.json'), 'utf8'),
) as readonly string[];

/** Reads the parts of the corpus: lines of trade, intent (`-`: outside), style and text. */
export function readCorpus(parts: readonly string[]): Map<string, CorpusLine[]> {
  const trades = new Map<string, CorpusLine[]>();
  for (const line of parts.flatMap((part) => part.split('\n'))) {
    const [trade, intent, style, text] = line.split('\t');
    if (trade === undefined || intent === undefined || style === undefined || text === undefined) continue;
    const lines = trades.get(trade) ?? [];
    lines.push({ text, intent: intent === '-' ? null : intent, style });
    trades.set(trade, lines);
  }
  return trades;
}

/** A bot that is taught the utterances of a trade. */
export function tradeBot(trade: string, lines: readonly CorpusLine[]): BotDocument {
  const names = [...new Set(lines.flatMap(({ intent }) => intent ?? []))];
  const taught = (name: string) =>
    lines.flatMap(({ text, intent, style }, at): Utterance[] =>
      intent === name && style === UTTERANCE ? [{ id: String(at), text, marks: [] }] : [],
    );
  return { ...emptyBot(trade), intents: names.map((name) => ({ name, utterances: taught(name) })) };
}

/** All trades of the corpus, as bots with the lines of their customers. */
function allTrades(): Trial[] {
  const folder = path.join(import.meta.dirname, 'corpus');
  const corpus = readCorpus(readdirSync(folder).map((name) => readFileSync(path.join(folder, name), 'utf8')));
  return [...corpus].map(([name, lines]) => ({
    name,
    document: tradeBot(name, lines),
    lines: lines.filter(({ style }) => style !== UTTERANCE),
  }));
}

/** The trades that no encoder learns from. */
export function tradesKeptApart(): Trial[] {
  const trades = new Map(allTrades().map((trade) => [trade.name, trade]));
  return KEPT_APART.map((name) => trades.get(name)!);
}

/** The trades that an encoder learns from. */
export const tradesLearnedFrom = (): Trial[] => allTrades().filter(({ name }) => !KEPT_APART.includes(name));
