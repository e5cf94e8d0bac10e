import { findForm, type BotDocument } from '../bot/document.js';
import type { MarkedText } from '../bot/marking.js';
import { isEncodedLanguage, type Vectors } from '../encode/encoder.js';
import { prepareSpeller } from '../text/spelling.js';
import type { Token } from '../text/tokens.js';
import { BACKGROUND } from './background.js';
import {
  nearestUtterances,
  utterancesToCompare,
  weighWord,
  withoutEach,
  type Explanation,
  type ReadUtterance,
  type WordWeight,
} from './explain.js';
import { countTerms, type ModelText } from './features.js';
import type { Candidate } from './finders/finder.js';
import { prepareFinders, type FindAll, type Overlapped } from './finders/index.js';
import { asSaid } from './described.js';
import { decide } from './gate.js';
import { FEW_UTTERANCES, imagine, withImagined, type Imagined } from './imagined.js';
import { Similarities } from './gram.js';
import {
  openIntentModel,
  trainIntentModel,
  type CountedText,
  type IntentModel,
  type RankedIntent,
  type RankedPart,
  type TrainingText,
} from './intentModel.js';
import type { Recognition } from './recognition.js';
import { prepareReader, readWith, wordsOf, type ReadText } from './reading.js';
import { prepareIntentSlots, type PassedOver, type SlotReading } from './slots.js';
import { openTagger, TaggerMemory, trainTaggers, wordsForTaggers, type TaggerModel } from './tagger/tagger.js';
import { packWords, WordTable, type WordVectors } from './tagger/wordViews.js';

/** Everything that is learned of a bot. Plain data. */
export interface RecogniserModel extends IntentModel {
  /** Words that are never taken for misspellings, folded. */
  words: string[];
  /** What tells the slots of a form from the words around them, by form. */
  taggers: Record<string, TaggerModel>;
  /** Vectors of the words that the taggers learned from. */
  taught: WordVectors;
  /** Utterances that were learned from though not all of their values could be looked for. */
  unread: UnreadUtterance[];
}

/** An utterance in which some values could not be looked for, for a finder failed in it. */
export interface UnreadUtterance {
  intent: string;
  /** Without marks. */
  text: string;
  /** What was not looked for. */
  entities: string[];
}

/** A text as it is learned from, with its values and the entities that could not be looked for. */
type FoundText = CountedText & { found: Candidate[]; failed: string[] };

/** A trained bot ready to read messages. The same message always gives the same reading. */
export interface Recogniser {
  readonly document: BotDocument;
  /** The texts whose sentence vectors the reading of a message needs; none where the language has no encoder. */
  textsToEncode(text: string): string[];
  /** @param vectors of {@link textsToEncode}; n-grams alone decide where they are lacking
   *  @param now local ISO time that relative dates are reckoned from */
  recognise(text: string, vectors: Vectors, now: string): Recognition;
  /** The texts whose sentence vectors an explanation needs. */
  textsToExplain(text: string): string[];
  /**
   * Why a message is read as it is, in steps of a millisecond or so, for it is as much work as reading many messages.
   * @param vectors of {@link textsToExplain}
   */
  explain(text: string, vectors: Vectors, now: string): Generator<void, Explanation>;
  /**
   * Slots of one intent, whatever the ranking.
   * @param vectors what the message was recognised with
   * @param asked the slot that was asked for
   */
  readSlots(intent: string, recognition: Recognition, vectors: Vectors, asked: string | null): SlotReading[];
}

/** Words of a message that the taggers look at with the encoder, at most. */
const MOST_VIEWED = 80;

/** Any day: what a text is masked with does not depend on it. */
const SOME_DAY = '2026-01-01T12:00';

/** Words as they are read; a word that lacked a space is two. */
const readWords = (tokens: readonly Token[]): string[] => tokens.flatMap(({ read }) => read.split(' '));

/** The words of a text or of a part of it, and the same with `{entity}` in the place of each value. */
function modelText(text: string, tokens: readonly Token[], entities: readonly Candidate[]): ModelText {
  const masked: string[] = [];
  let value = 0;
  let from = 0;
  for (const token of tokens) {
    while (value < entities.length && entities[value]!.start < token.end) {
      const { start, end, entity } = entities[value++]!;
      if (start < from || end <= token.start) continue;
      masked.push(`{${entity}}`);
      from = end;
    }
    if (token.start >= from) masked.push(...readWords([token]));
  }
  return { text, words: readWords(tokens), masked };
}

/** What a training leaves for the next, which mostly has the same texts; without it all is found anew. */
export class TrainingMemory {
  #entities = '';
  #texts = new Map<string, FoundText>();
  readonly taggers = new TaggerMemory();
  readonly similarities = new Similarities();

  /** Forgets the texts of other entities. */
  open(document: BotDocument): void {
    const entities = JSON.stringify([document.entities, document.forms, document.region]);
    if (entities !== this.#entities || this.#texts.size > MOST_REMEMBERED) this.#texts.clear();
    this.#entities = entities;
  }

  /** Counts the terms of a text, as it is read. */
  count(read: ReadText, vocabulary: ReadonlySet<string>, findAll: FindAll): FoundText {
    // Of the vocabulary only the text's own words matter to it.
    const key = `${read.text}\n${read.mended}\n${read.tokens.map(({ norm }) => (vocabulary.has(norm) ? 1 : 0)).join('')}`;
    const known = this.#texts.get(key);
    if (known) return known;
    const failed: string[] = [];
    const found = findAll(read, SOME_DAY, [], failed);
    const text = modelText(read.mended, read.tokens, found);
    const counted = { ...text, counts: countTerms(text), found, failed: [...new Set(failed)] };
    this.#texts.set(key, counted);
    return counted;
  }
}

const MOST_REMEMBERED = 60_000;

type PlainTraining = Pick<TrainingText, 'intent' | 'utterance' | 'part'> & { text: string };

/** How many values an opening has. */
const OPENING_VALUES = 2;

/** How an utterance of many values begins: people say so much at first, and the rest when they are asked. */
function openingOf({ text, marks }: MarkedText): string | null {
  const ends = marks.map(({ end }) => end).sort((a, b) => a - b);
  return ends.length > OPENING_VALUES ? text.slice(0, ends[OPENING_VALUES - 1]) : null;
}

/** An intent is known by its utterances and its description; by its name too, while it has few utterances. */
function trainingTexts(document: BotDocument): PlainTraining[] {
  return document.intents.flatMap((intent) => {
    const { name, utterances, description } = intent;
    const texts = utterances.flatMap((utterance, index): PlainTraining[] => {
      const whole: PlainTraining = { text: utterance.text, intent: name, utterance: index, part: 'whole' };
      const opening = openingOf(utterance);
      return opening === null ? [whole] : [whole, { ...whole, text: opening, part: 'opening' }];
    });
    const about = (text: string): PlainTraining => ({ text, intent: name, utterance: null, part: 'description' });
    const few = utterances.length < FEW_UTTERANCES;
    if (description !== undefined) texts.push(about(few && isEncoded(document) ? asSaid(description) : description));
    if (few) texts.push(about(name.replace(/[_-]/g, ' ')));
    return texts;
  });
}

const mainLanguage = (document: BotDocument): string => document.languages[0] ?? 'en';

const isEncoded = (document: BotDocument): boolean => isEncodedLanguage(mainLanguage(document));

/** The background as messages are read: with its misspelt words put right. */
const background: readonly ReadText[] = readBackground();

function readBackground(): ReadText[] {
  const speller = prepareSpeller(new Set());
  return BACKGROUND.map((text) => readWith(text, (token) => speller.mend(token)));
}

/** The texts whose sentence vectors training needs, each once; none where the language has no encoder. */
export function textsForTraining(document: BotDocument): string[] {
  if (!isEncoded(document)) return [];
  const reader = prepareReader(document, wordsOf(document));
  return [
    ...new Set([
      ...trainingTexts(document).map(({ text }) => reader.read(text).mended),
      ...background.map(({ mended }) => mended),
      ...wordsForTaggers(document, (text) => reader.read(text)),
    ]),
  ];
}

/** What helps the intents that have few utterances. */
function imagineFor(document: BotDocument, texts: readonly TrainingText[], vectors: Vectors): Imagined[] {
  const few = new Set(
    document.intents.filter(({ utterances }) => utterances.length < FEW_UTTERANCES).map(({ name }) => name),
  );
  return imagine(
    texts.filter(({ intent, part }) => few.has(intent) && part !== 'opening'),
    texts.filter(({ intent, part }) => !few.has(intent) && part === 'whole'),
    vectors,
  );
}

const NO_TERMS = countTerms({ text: '', words: [], masked: [] });

const imaginedText = ({ text, intent }: Imagined): TrainingText => ({
  text,
  words: [],
  masked: [],
  counts: NO_TERMS,
  written: '',
  intent,
  utterance: null,
  part: 'imagined',
});

/**
 * Trains the model of a bot.
 * @param vectors of every text of {@link textsForTraining}
 * @param memory what the training before left
 */
export function trainRecogniser(
  document: BotDocument,
  vectors: Vectors,
  memory: TrainingMemory = new TrainingMemory(),
): RecogniserModel {
  memory.open(document);
  const words = wordsOf(document);
  const reader = prepareReader(document, words);
  const findAll = prepareFinders(document, reader.vocabulary);
  const count = (read: ReadText) => memory.count(read, reader.vocabulary, findAll);
  const texts = trainingTexts(document).map(({ text, ...taught }): TrainingText & FoundText => ({
    ...count(reader.read(text)),
    written: text,
    ...taught,
  }));
  const imagined = isEncoded(document) ? imagineFor(document, texts, vectors) : [];
  const behind = background.map(count);
  const readForTagger = (text: string) => {
    const read = reader.read(text);
    return { read, candidates: count(read).found };
  };
  const taggers = trainTaggers(document, readForTagger, vectors, memory.taggers);
  const taught = Object.values(taggers).flatMap((tagger) => tagger.taught.map(({ word }) => word));
  return {
    ...trainIntentModel(
      [...texts, ...imagined.map(imaginedText)],
      behind,
      mainLanguage(document),
      withImagined(
        [...texts, ...behind].map(({ text }) => text),
        imagined,
        vectors,
      ),
      memory.similarities,
    ),
    words,
    taggers,
    taught: packWords([...new Set(taught)], vectors),
    unread: texts
      .filter(({ part, failed }) => part === 'whole' && failed.length > 0)
      .map(({ intent, written, failed }) => ({ intent, text: written, entities: failed })),
  };
}

/** The utterances of a small bot with their values masked: a message like one of them was taught. */
function maskedUtterances(
  document: BotDocument,
  { caution, reliability }: RecogniserModel,
  mask: (text: string) => string,
): ReadonlySet<string> {
  if (caution === 0 && reliability.every((worth) => worth === 1)) return new Set();
  const few = document.intents.filter(({ utterances }) => caution > 0 || utterances.length < FEW_UTTERANCES + 1);
  return new Set(few.flatMap(({ utterances }) => utterances.map(({ text }) => mask(text))));
}

/** The entities of codes (order numbers and the like) that an intent takes or speaks of. */
function codesTaken(document: BotDocument, { form, utterances }: BotDocument['intents'][number]): ReadonlySet<string> {
  const slots = findForm(document, form)?.slots ?? [];
  const marked = utterances.flatMap(({ marks }) => marks.map(({ slot }) => slot));
  return new Set([...slots.map(({ entity }) => entity), ...marked]);
}

/** How much less likely an intent is that has no use for a code which the message names. */
const WITHOUT_CODE = 0.05;

/** A message that names a code speaks of something that has one: intents that take it gain on those that do not. */
function byCodes(
  ranking: RankedIntent[],
  entities: readonly Candidate[],
  codesOf: ReadonlyMap<string, ReadonlySet<string>>,
): RankedIntent[] {
  const codes = [...new Set(entities.filter(({ kind }) => kind === 'pattern').map(({ entity }) => entity))];
  const takes = (intent: string) => codes.some((code) => codesOf.get(intent)!.has(code));
  if (codes.length === 0 || !ranking.some(({ intent }) => takes(intent))) return ranking;
  const inside = ranking.reduce((sum, { confidence }) => sum + confidence, 0);
  const weighed = ranking.map(({ intent, confidence }) => ({
    intent,
    confidence: takes(intent) ? confidence : confidence * WITHOUT_CODE,
  }));
  const total = weighed.reduce((sum, { confidence }) => sum + confidence, 1 - inside);
  return weighed
    .map(({ intent, confidence }) => ({ intent, confidence: confidence / total }))
    .sort((a, b) => b.confidence - a.confidence || (a.intent < b.intent ? -1 : 1));
}

/** A message that was read, and what it was read with: what a request asks for twice is read once. */
interface LastRead {
  text: string;
  read: ReadText;
}

function gaveWay(text: string, { candidate, by }: Overlapped): PassedOver {
  const { entity, start, end } = candidate;
  const rule =
    by.end - by.start > end - start
      ? 'the longer stretch of words counts'
      : 'of equally long ones the earlier finder counts';
  const winner = `“${text.slice(by.start, by.end)}” is read as ${by.entity}`;
  return { entity, start, end, text: text.slice(start, end), why: `${winner}; ${rule}` };
}

/** Makes a bot ready to read messages with a model trained on it. */
export function openRecogniser(document: BotDocument, model: RecogniserModel): Recogniser {
  const ranker = openIntentModel(model);
  const reader = prepareReader(document, model.words);
  const findAll = prepareFinders(document, reader.vocabulary);
  const taught = new WordTable(model.taught);
  const taggers = Object.entries(model.taggers).map(([form, tagger]) => [form, openTagger(tagger, taught)] as const);
  const slotsOf = prepareIntentSlots(document, new Map(taggers));
  const known = new Set(document.intents.map((intent) => intent.name));
  const codesOf = new Map(document.intents.map((intent) => [intent.name, codesTaken(document, intent)]));
  const comparable = (text: string): ModelText => {
    const message = reader.read(text);
    return modelText(message.mended, message.tokens, findAll(message, SOME_DAY));
  };
  const taughtMessages = maskedUtterances(document, model, (text) => comparable(text).masked.join(' '));
  let last: LastRead | null = null;
  const read = (text: string): ReadText => {
    if (last?.text !== text) last = { text, read: reader.read(text) };
    return last.read;
  };
  const textsToEncode = (text: string): string[] => {
    if (!isEncoded(document)) return [];
    const { mended, sentences, tokens } = read(text);
    const viewed = model.taught.words.length === 0 ? [] : tokens.slice(0, MOST_VIEWED);
    const words = viewed.map((token) => token.read).filter((word) => !taught.has(word));
    return [...new Set([mended, ...sentences.map((sentence) => sentence.text), ...words])];
  };
  return {
    document,
    textsToEncode,
    textsToExplain(text) {
      if (!isEncoded(document)) return [];
      const parts = withoutEach(text, read(text).tokens).flatMap((rest) => textsToEncode(rest.text));
      const utterances = utterancesToCompare(document, []).map((utterance) => reader.read(utterance.text).mended);
      return [...new Set([...textsToEncode(text), ...parts, ...utterances])];
    },
    *explain(text, vectors, now) {
      const recognition = this.recognise(text, vectors, now);
      const best = recognition.ranking[0];
      const { tokens, mended } = read(text);
      const words: WordWeight[] = [];
      for (const rest of best ? withoutEach(text, tokens) : []) {
        const { ranking } = this.recognise(rest.text, vectors, now);
        words.push(weighWord(rest.token, best!, ranking));
        yield;
      }
      const utterances: ReadUtterance[] = [];
      for (const utterance of utterancesToCompare(document, recognition.ranking)) {
        utterances.push({ ...utterance, read: comparable(utterance.text) });
        yield;
      }
      const message = { text: comparable(text), vector: vectors.get(mended) ?? null };
      return { recognition, words, nearest: yield* nearestUtterances(ranker, message, utterances, vectors) };
    },
    recognise(text, vectors, now) {
      const message = read(text);
      const { tokens, mended, mendings, sentences } = message;
      const overlapped: Overlapped[] = [];
      const failed: string[] = [];
      const entities = findAll(message, now, overlapped, failed);
      const found = { entities, overlapped: overlapped.map(({ candidate }) => candidate) };
      const part = (words: string, own: readonly Token[], weight: number): RankedPart => ({
        text: modelText(words, own, entities),
        vector: vectors.get(words) ?? null,
        weight,
      });
      // Pictures and signs alone say nothing, and what says nothing belongs to no intent.
      const ranked =
        tokens.length === 0
          ? []
          : ranker.rank(
              part(mended, tokens, 1),
              sentences.map((sentence) => part(sentence.text, sentence.tokens, sentence.weight)),
              taughtMessages.has(modelText(mended, tokens, entities).masked.join(' ')),
            );
      const ranking = byCodes(
        ranked.filter((item) => known.has(item.intent)),
        entities,
        codesOf,
      );
      const { decision, candidates } = decide(ranking, document.gate);
      const best = ranking[0];
      const { slots, passedOver } = best
        ? slotsOf(best.intent, message, found, vectors)
        : { slots: [], passedOver: [] };
      return {
        text,
        intent: decision === 'none' ? null : (best?.intent ?? null),
        confidence: best?.confidence ?? 0,
        decision,
        candidates,
        ranking,
        slots,
        passedOver: [...passedOver, ...overlapped.map((pair) => gaveWay(text, pair))],
        ...found,
        failed: [...new Set(failed)],
        mendings,
      };
    },
    readSlots: (intent, recognition, vectors, asked) =>
      slotsOf(intent, read(recognition.text), recognition, vectors, asked).slots,
  };
}
