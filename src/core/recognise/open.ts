import { findForm, type BotDocument } from '../bot/document.js';
import type { Vectors } from '../encode/encoder.js';
import type { Token } from '../text/tokens.js';
import { nearestUtterances, utterancesToCompare, weighWord, withoutEach, type Explanation } from './explain.js';
import type { ModelText } from './features.js';
import type { Candidate } from './finders/finder.js';
import { prepareFinders, type Overlapped } from './finders/index.js';
import { decide } from './gate.js';
import { FEW_UTTERANCES } from './imagined.js';
import { openIntentModel, type RankedIntent, type RankedPart } from './intentModel.js';
import type { RecogniserModel } from './model.js';
import { modelText, SOME_DAY } from './modelText.js';
import type { Recognition } from './recognition.js';
import { isEncoded, prepareReader, type ReadText } from './reading.js';
import { prepareIntentSlots, type PassedOver, type SlotReading } from './slots.js';
import { openTagger } from './tagger/tagger.js';
import { WordTable } from './tagger/wordViews.js';

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

/** Words of a message that the taggers look at with the encoder, at most. */
const MOST_VIEWED = 80;

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
  const recognise: Recogniser['recognise'] = (text, vectors, now) => {
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
    const { slots, passedOver } = best ? slotsOf(best.intent, message, found, vectors) : { slots: [], passedOver: [] };
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
  };
  return {
    document,
    textsToEncode,
    recognise,
    textsToExplain(text) {
      if (!isEncoded(document)) return [];
      const parts = withoutEach(text, read(text).tokens).flatMap((rest) => textsToEncode(rest.text));
      const utterances = utterancesToCompare(document, []).map((utterance) => reader.read(utterance.text).mended);
      return [...new Set([...textsToEncode(text), ...parts, ...utterances])];
    },
    explain(text, vectors, now) {
      const recognition = recognise(text, vectors, now);
      const best = recognition.ranking[0];
      const { tokens, mended } = read(text);
      const words = !best
        ? []
        : withoutEach(text, tokens).map((rest) =>
            weighWord(rest.token, best, recognise(rest.text, vectors, now).ranking),
          );
      const utterances = utterancesToCompare(document, recognition.ranking).map((utterance) => ({
        ...utterance,
        read: comparable(utterance.text),
      }));
      const message = { text: comparable(text), vector: vectors.get(mended) ?? null };
      return { recognition, words, nearest: nearestUtterances(ranker, message, utterances, vectors) };
    },
    readSlots: (intent, recognition, vectors, asked) =>
      slotsOf(intent, read(recognition.text), recognition, vectors, asked).slots,
  };
}
