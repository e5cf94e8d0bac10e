import { findForm, type BotDocument } from '../bot/document.js';
import type { Vectors } from '../encode/encoder.js';
import type { Token } from '../text/tokens.js';
import { nearestUtterances, utterancesToCompare, weighWord, withoutEach, type Explanation } from './explain.js';
import type { ModelText } from './features.js';
import type { Candidate } from './finders/finder.js';
import { prepareFinders, type FindAll, type Overlapped } from './finders/index.js';
import { decide, gateOf, type Gate } from './gate.js';
import { FEW_UTTERANCES } from './imagined.js';
import { openIntentModel, type IntentRanker, type RankedIntent, type RankedPart } from './intentModel.js';
import type { RecogniserModel } from './model.js';
import { modelText, SOME_DAY } from './modelText.js';
import type { Recognition } from './recognition.js';
import { languageOf } from '../language/index.js';
import { isEncoded, prepareReader, type ReadText, type TextReader } from './reading.js';
import { prepareIntentSlots, type PassedOver, type ReadSlots, type SlotReading } from './slots.js';
import { openTagger } from './tagger/tagger.js';
import { lookedAt } from './tagger/wordViews.js';
import { entriesOf } from '../text/named.js';

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
   * Why a message is read as it is: as much work as reading many messages.
   * @param vectors of {@link textsToExplain}
   */
  explain(text: string, vectors: Vectors, now: string): Explanation;
  /**
   * Slots of one intent, whatever the ranking.
   * @param vectors what the message was recognised with
   * @param asked the slot that was asked for
   */
  readSlots(intent: string, recognition: Recognition, vectors: Vectors, asked: string | null): SlotReading[];
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
  // What lies outside the bot has no use for its codes either.
  const outside = (1 - inside) * WITHOUT_CODE;
  const total = weighed.reduce((sum, { confidence }) => sum + confidence, outside);
  return weighed
    .map(({ intent, confidence }) => ({ intent, confidence: confidence / total }))
    .sort((a, b) => b.confidence - a.confidence || (a.intent < b.intent ? -1 : 1));
}

/** Messages whose reading stays in memory: what a request asks for again, or the next lines of a test, are read once. */
const MOST_READ = 64;

function gaveWay(text: string, { candidate, by }: Overlapped): PassedOver {
  const { entity, start, end } = candidate;
  const rule =
    by.end - by.start > end - start
      ? 'the longer stretch of words counts'
      : 'of equally long ones the earlier finder counts';
  const winner = `“${text.slice(by.start, by.end)}” is read as ${by.entity}`;
  return { entity, start, end, text: text.slice(start, end), why: `${winner}; ${rule}` };
}

/** A bot that is ready to read messages with a model trained on it. */
class OpenedRecogniser implements Recogniser {
  readonly document: BotDocument;
  readonly #model: RecogniserModel;
  readonly #ranker: IntentRanker;
  readonly #reader: TextReader;
  readonly #findAll: FindAll;
  readonly #slotsOf: ReadSlots;
  readonly #known: ReadonlySet<string>;
  readonly #codesOf: ReadonlyMap<string, ReadonlySet<string>>;
  readonly #gate: Gate;
  readonly #taughtMessages: ReadonlySet<string>;
  /** The last messages that were read, the oldest first. */
  readonly #messages = new Map<string, ReadText>();

  constructor(document: BotDocument, model: RecogniserModel) {
    this.document = document;
    this.#model = model;
    this.#ranker = openIntentModel(model);
    this.#reader = prepareReader(document, model.words);
    this.#findAll = prepareFinders(document, this.#reader.vocabulary);
    const taggers = entriesOf(model.taggers).map(
      ([form, tagger]) => [form, openTagger(tagger, languageOf(this.document))] as const,
    );
    this.#slotsOf = prepareIntentSlots(document, new Map(taggers));
    this.#known = new Set(document.intents.map((intent) => intent.name));
    this.#codesOf = new Map(document.intents.map((intent) => [intent.name, codesTaken(document, intent)]));
    this.#gate = gateOf(document);
    this.#taughtMessages = maskedUtterances(document, model, (text) => this.#comparable(text).masked.join(' '));
  }

  #comparable(text: string): ModelText {
    const message = this.#reader.read(text);
    return modelText(message.mended, message.tokens, this.#findAll(message, SOME_DAY));
  }

  #read(text: string): ReadText {
    const known = this.#messages.get(text);
    if (known) return known;
    const message = this.#reader.read(text);
    const [oldest] = this.#messages.keys();
    if (this.#messages.size === MOST_READ) this.#messages.delete(oldest!);
    this.#messages.set(text, message);
    return message;
  }

  textsToEncode(text: string): string[] {
    if (!isEncoded(this.document)) return [];
    const message = this.#read(text);
    const words = Object.keys(this.#model.taggers).length === 0 ? [] : [lookedAt(message)];
    return [...new Set([message.mended, ...message.sentences.map((sentence) => sentence.text), ...words])];
  }

  /** The intents of the bot, the likeliest first. */
  #rank({ tokens, mended, sentences }: ReadText, entities: readonly Candidate[], vectors: Vectors): RankedIntent[] {
    // Pictures and signs alone say nothing, and what says nothing belongs to no intent.
    if (tokens.length === 0) return [];
    const part = (words: string, own: readonly Token[], weight: number): RankedPart => ({
      text: modelText(words, own, entities),
      vector: vectors.get(words) ?? null,
      weight,
    });
    const whole = part(mended, tokens, 1);
    const ranked = this.#ranker.rank(
      whole,
      sentences.map((sentence) => part(sentence.text, sentence.tokens, sentence.weight)),
      this.#taughtMessages.has(whole.text.masked.join(' ')),
    );
    return byCodes(
      ranked.filter((item) => this.#known.has(item.intent)),
      entities,
      this.#codesOf,
    );
  }

  recognise(text: string, vectors: Vectors, now: string): Recognition {
    const message = this.#read(text);
    const overlapped: Overlapped[] = [];
    const failed: string[] = [];
    const entities = this.#findAll(message, now, overlapped, failed);
    const found = { entities, overlapped: overlapped.map(({ candidate }) => candidate) };
    const ranking = this.#rank(message, entities, vectors);
    const { decision, candidates } = decide(ranking, this.#gate);
    const best = ranking[0];
    const { slots, passedOver } = best
      ? this.#slotsOf(best.intent, message, found, { vectors })
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
      mendings: message.mendings,
    };
  }

  textsToExplain(text: string): string[] {
    if (!isEncoded(this.document)) return [];
    const parts = withoutEach(text, this.#read(text).tokens).flatMap((rest) => this.textsToEncode(rest.text));
    const utterances = utterancesToCompare(this.document, []).map(
      (utterance) => this.#reader.read(utterance.text).mended,
    );
    return [...new Set([...this.textsToEncode(text), ...parts, ...utterances])];
  }

  explain(text: string, vectors: Vectors, now: string): Explanation {
    const recognition = this.recognise(text, vectors, now);
    const best = recognition.ranking[0];
    const { tokens, mended } = this.#read(text);
    const words = !best
      ? []
      : withoutEach(text, tokens).map((rest) =>
          weighWord(rest.token, best, this.recognise(rest.text, vectors, now).ranking),
        );
    const utterances = utterancesToCompare(this.document, recognition.ranking).map((utterance) => ({
      ...utterance,
      modelText: this.#comparable(utterance.text),
    }));
    const message = { text: this.#comparable(text), vector: vectors.get(mended) ?? null };
    return { recognition, words, nearest: nearestUtterances(this.#ranker, message, utterances, vectors) };
  }

  readSlots(intent: string, recognition: Recognition, vectors: Vectors, asked: string | null): SlotReading[] {
    return this.#slotsOf(intent, this.#read(recognition.text), recognition, { vectors, asked }).slots;
  }
}

/** Makes a bot ready to read messages with a model trained on it. */
export const openRecogniser = (document: BotDocument, model: RecogniserModel): Recogniser =>
  new OpenedRecogniser(document, model);
