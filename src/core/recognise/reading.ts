import type { BotDocument } from '../bot/document.js';
import { isEncodedLanguage } from '../encode/encoder.js';
import { languageNamed, languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { mendWords } from '../text/mend.js';
import { askingWeight, sentencesOf } from '../text/sentences.js';
import { encoderText } from './encoderText.js';
import { NO_REFERENCES, prepareReferences } from './references.js';
import { prepareSpeller } from '../text/spelling.js';
import { tokenise, tokenisePart, tokensWithin, type Token, type TokenisedText } from '../text/tokens.js';

/** A word that was read as another. Offsets are UTF-16 code units of the original text. */
export interface Mending {
  start: number;
  end: number;
  text: string;
  to: string;
}

/** One sentence of a message of several. */
export interface ReadSentence {
  /** The sentence as the encoder reads it. */
  text: string;
  tokens: Token[];
  /** How much it asks for something; more than 0. */
  weight: number;
}

/** A message cut into words, the misspelt ones put right. Its `text` is as much of the message as is read. */
export interface ReadText extends TokenisedText {
  /** The text as the encoder reads it: misspelt words put right, and for order numbers what they are numbers of. */
  mended: string;
  mendings: Mending[];
  /** The sentences, of a message of several; none of a message of one. */
  sentences: ReadSentence[];
}

/** Cuts messages into words with the spelling help of one bot. */
export interface TextReader {
  /** Words that are never taken for misspellings, folded. */
  readonly vocabulary: ReadonlySet<string>;
  read(text: string): ReadText;
}

/** Sentences that are read on their own, at most: those that ask for something first. */
const MOST_SENTENCES = 6;
/** A sentence of fewer words says nothing on its own. */
const FEWEST_WORDS = 2;
/** What is written without a space and holds one of these is an e-mail or web address. */
const OF_ADDRESSES = /@|:\/\/|\bwww\./i;
/** Misspelt words that are put right in one text, at most: more of them are no misspellings but another language. */
const MOST_MENDED = 40;
/** Words that no dictionary has and that are looked for in one text, at most. */
const MOST_UNKNOWN = 50;

/**
 * The words that the bot's own texts use: all of its list values, and of its utterances those that are no misspelling
 * themselves (customers' messages are taught as they came).
 */
function ownWords(document: BotDocument): Set<string> {
  const own = new Set<string>();
  const add = (text: string) => {
    for (const { norm } of tokenise(text).tokens) own.add(norm);
  };
  for (const { values } of document.entities)
    for (const { value, synonyms } of values ?? []) [value, ...synonyms].forEach(add);
  const counts = new Map<string, number>();
  for (const { utterances, description } of document.intents) {
    for (const utterance of utterances) {
      const words = new Set(tokenise(utterance.text).tokens.map(({ norm }) => norm));
      for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
    }
    if (description !== undefined) add(description);
  }
  const { dictionary } = languageOf(document);
  for (const [word, count] of counts) if (count > 1 || dictionary.has(word)) own.add(word);
  return own;
}

/** The words of an utterance that nothing is near to are words of the bot's trade. */
function withTradeWords(document: BotDocument, own: Set<string>): Set<string> {
  const speller = prepareSpeller(own, languageNamed(mainLanguage(document)));
  const trade = document.intents
    .flatMap(({ utterances }) => utterances.flatMap(({ text }) => tokenise(text).tokens))
    .filter((token) => !own.has(token.norm) && speller.mend(token) === null);
  return new Set([...own, ...trade.map(({ norm }) => norm)]);
}

export const mainLanguage = (document: BotDocument): string => document.languages[0] ?? 'en';

/** Whether the encoder reads the bot's main language. */
export const isEncoded = (document: BotDocument): boolean => isEncodedLanguage(mainLanguage(document));

/** Words that are never taken for misspellings in messages to a bot, folded and in order. */
export function wordsOf(document: BotDocument): string[] {
  return [...withTradeWords(document, ownWords(document))].sort();
}

/** Prepares the reading of texts. @param words of {@link wordsOf} */
export function prepareReader(document: BotDocument, words: readonly string[]): TextReader {
  const vocabulary = new Set(words);
  const speller = prepareSpeller(vocabulary, languageNamed(mainLanguage(document)));
  const language = languageOf(document);
  const references = prepareReferences(document, vocabulary);
  return { vocabulary, read: (text) => readWith(text, language, (token) => speller.mend(token), references) };
}

/** Tells of words, from left to right, whether they lie in an address: its words are names, no misspellings. */
function addressTest(text: string): (token: Token) => boolean {
  if (!OF_ADDRESSES.test(text)) return () => false;
  const addresses = [...text.matchAll(/\S+/g)]
    .filter(([stretch]) => OF_ADDRESSES.test(stretch))
    .map(({ 0: stretch, index }) => ({ start: index, end: index + stretch.length }));
  return ({ start }) => {
    while (addresses[0] && addresses[0].end <= start) addresses.shift();
    return addresses[0] !== undefined && addresses[0].start <= start;
  };
}

/** The ending of "22nd", which is no short "and". */
const isEnding = (text: string, { norm, start }: Token, { numbers }: Language): boolean =>
  numbers.isOrdinalEnding(norm) && /\d/.test(text[start - 1] ?? '');

/**
 * Reads a text.
 * @param mend gives what a word is to be read as, or `null`
 * @param findReferences finds what the encoder reads as other words
 */
export function readWith(
  whole: string,
  language: Language,
  mend: (token: Token) => string | null,
  findReferences = NO_REFERENCES,
): ReadText {
  const { text, tokens } = tokenisePart(whole);
  const mendings: Mending[] = [];
  const inAddress = addressTest(text);
  // A letter that is all there is stands for itself: “y” says yes, though before other words it asks why.
  const isLetter = tokens.length === 1 && tokens[0]!.norm.length === 1;
  let unknown = 0;
  for (const token of tokens) {
    if (mendings.length === MOST_MENDED || unknown === MOST_UNKNOWN) break;
    if (!language.dictionary.has(token.norm)) unknown++;
    const mended = isLetter || inAddress(token) || isEnding(text, token, language) ? null : mend(token);
    if (mended === null) continue;
    token.mended = mended;
    mendings.push({ start: token.start, end: token.end, text: token.text, to: mended });
  }
  const message: ReadText = { text, tokens, mendings, mended: '', sentences: [] };
  const references = findReferences(message);
  const mendedIn = (words: readonly Token[], start: number, end: number): string => {
    const own = references.filter((reference) => reference.start >= start && reference.end <= end);
    const parts = [
      ...words
        .filter((word) => word.mended !== word.norm && !own.some((one) => one.start < word.end && word.start < one.end))
        .map((word) => ({ ...word, said: word.mended })),
      ...own,
    ].sort((a, b) => a.start - b.start);
    return encoderText(mendWords(text.slice(start, end), parts, ({ said }) => said, start).text);
  };
  message.mended = mendedIn(tokens, 0, text.length);
  message.sentences = readSentences(message, language, mendedIn);
  return message;
}

function readSentences(
  { text, tokens }: TokenisedText,
  language: Language,
  mendedIn: (words: readonly Token[], start: number, end: number) => string,
): ReadSentence[] {
  const all = sentencesOf(text).flatMap(({ start, end }): ReadSentence[] => {
    const own = tokensWithin(tokens, start, end);
    if (own.length < FEWEST_WORDS) return [];
    return [{ text: mendedIn(own, start, end), tokens: own, weight: askingWeight(text.slice(start, end), language) }];
  });
  if (all.length < 2) return [];
  const asking = [...all].sort((a, b) => b.weight - a.weight).slice(0, MOST_SENTENCES);
  return all.filter((sentence) => asking.includes(sentence));
}
