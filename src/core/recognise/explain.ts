import type { BotDocument, RowId } from '../bot/document.js';
import { writeMarking } from '../bot/marking.js';
import type { Vectors } from '../encode/encoder.js';
import type { Token } from '../text/tokens.js';
import type { ModelText } from './features.js';
import type { IntentRanker, RankedIntent } from './intentModel.js';
import type { Recognition } from './recognition.js';

/** How much a word spoke for the first intent. Offsets are UTF-16 code units of the original text. */
export interface WordWeight {
  start: number;
  end: number;
  text: string;
  /** By how much the log-odds of the first intent fall when the word is left out; below 0 where it spoke against. */
  weight: number;
}

/** An utterance that is like the message. */
export interface NearUtterance {
  intent: string;
  utterance: RowId;
  text: string;
  /** With its marks, as acts name it. */
  marked: string;
  /** 0..1. */
  similarity: number;
}

/** Why a message was read as it was. */
export interface Explanation {
  recognition: Recognition;
  /** Of the first intent; empty where there is none. In text order. */
  words: WordWeight[];
  /** The nearest utterances of all intents, nearest first. */
  nearest: NearUtterance[];
}

/** Words of a message that are weighed, at most; of a longer one the first. */
const MOST_WORDS = 60;
const NEAREST = 3;
/** Utterances compared, at most; of more, those of the first intents. */
const MOST_COMPARED = 4000;
const LEAST = 1e-6;

const logOdds = (probability: number): number => {
  const within = Math.min(1 - LEAST, Math.max(LEAST, probability));
  return Math.log(within / (1 - within));
};

/** The message without each of its words in turn. */
export function withoutEach(text: string, tokens: readonly Token[]): { token: Token; text: string }[] {
  if (tokens.length < 2) return [];
  return tokens.slice(0, MOST_WORDS).map((token) => ({
    token,
    text: `${text.slice(0, token.start)}${text.slice(token.end)}`.replace(/\s{2,}/g, ' ').trim(),
  }));
}

/** Weighs a word by the ranking of the message without it. */
export function weighWord(
  { start, end, text }: Token,
  best: RankedIntent,
  without: readonly RankedIntent[],
): WordWeight {
  const rest = without.find(({ intent }) => intent === best.intent)?.confidence ?? 0;
  return { start, end, text, weight: logOdds(best.confidence) - logOdds(rest) };
}

/** The utterances that may be near to a message, by the ranking of its intents. */
export function utterancesToCompare(
  document: BotDocument,
  ranking: readonly RankedIntent[],
): Omit<NearUtterance, 'similarity'>[] {
  const place = new Map(ranking.map(({ intent }, index) => [intent, index]));
  const intents = [...document.intents].sort(
    (a, b) => (place.get(a.name) ?? Infinity) - (place.get(b.name) ?? Infinity),
  );
  return intents
    .flatMap(({ name, utterances }) => utterances.map((utterance) => ({ intent: name, utterance })))
    .slice(0, MOST_COMPARED)
    .map(({ intent, utterance }) => ({
      intent,
      utterance: utterance.id,
      text: utterance.text,
      marked: writeMarking(utterance),
    }));
}

/** What a message is compared by. */
export interface Comparable {
  text: ModelText;
  vector: Float32Array | null;
}

/** An utterance as the model reads it. */
export interface ReadUtterance extends Omit<NearUtterance, 'similarity'> {
  modelText: ModelText;
}

/** The nearest of some utterances, nearest first. */
export function nearestUtterances(
  ranker: IntentRanker,
  message: Comparable,
  utterances: readonly ReadUtterance[],
  vectors: Vectors,
): NearUtterance[] {
  const likeness = ranker.compare(message);
  const compared = utterances.map(({ modelText, ...utterance }) => ({
    ...utterance,
    similarity: likeness({ text: modelText, vector: vectors.get(modelText.text) ?? null }),
  }));
  return compared.sort((a, b) => b.similarity - a.similarity).slice(0, NEAREST);
}
