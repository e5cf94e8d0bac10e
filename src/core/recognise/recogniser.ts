import type { BotDocument } from '../bot/document.js';
import { plainText } from '../bot/marking.js';
import { ENCODER_LANGUAGES, type Vectors } from '../encode/encoder.js';
import { tokenise } from '../text/tokens.js';
import { BACKGROUND } from './background.js';
import type { ModelText } from './features.js';
import type { Candidate } from './finders/finder.js';
import { prepareFinders, type FindAll } from './finders/index.js';
import { decide, type Decision } from './gate.js';
import {
  openIntentModel,
  trainIntentModel,
  type IntentModel,
  type RankedIntent,
  type TrainingText,
} from './intentModel.js';
import { prepareIntentSlots, type SlotReading } from './slots.js';

/** What a message was read as. */
export interface Recognition {
  text: string;
  /** The best intent, or `null` when the gate lets nothing through. */
  intent: string | null;
  /** Confidence of the best intent in the ranking, whatever the decision. */
  confidence: number;
  decision: Decision;
  /** The intents in reach when the decision is to ask. */
  candidates: string[];
  /** Every intent, best first. */
  ranking: RankedIntent[];
  /** Slots of the first intent in the ranking. */
  slots: SlotReading[];
  /** Every value found, of whatever entity. */
  entities: Candidate[];
}

/** A trained bot ready to read messages. The same message always gives the same reading. */
export interface Recogniser {
  readonly document: BotDocument;
  /** @param vector the message's sentence vector, or `null` where none is to be had
   *  @param now local ISO time that relative dates are reckoned from */
  recognise(text: string, vector: Float32Array | null, now: string): Recognition;
  /** Slots of one intent, whatever the ranking. @param asked the slot that was asked for */
  readSlots(intent: string, recognition: Recognition, asked: string | null): SlotReading[];
}

/** Any day: what a text is masked with does not depend on it. */
const SOME_DAY = '2026-01-01T12:00';

/** Puts `{entity}` in the place of each value. */
function mask(text: string, entities: readonly Candidate[]): ModelText {
  let masked = '';
  let from = 0;
  for (const { start, end, entity } of entities) {
    if (start < from) continue;
    masked += `${text.slice(from, start)}{${entity}}`;
    from = end;
  }
  return { text, masked: masked + text.slice(from) };
}

const maskText = (text: string, findAll: FindAll): ModelText => mask(text, findAll(tokenise(text), SOME_DAY));

interface PlainTraining {
  text: string;
  intent: string;
  utterance: number | null;
}

/** An intent without utterances is known by its description, or by its name where it has none. */
function trainingTexts(document: BotDocument): PlainTraining[] {
  return document.intents.flatMap((intent) => {
    const texts: PlainTraining[] = intent.utterances.map((utterance, index) => ({
      text: plainText(utterance),
      intent: intent.name,
      utterance: index,
    }));
    const description = intent.description ?? (texts.length === 0 ? intent.name.replace(/[_-]/g, ' ') : undefined);
    return description === undefined ? texts : [...texts, { text: description, intent: intent.name, utterance: null }];
  });
}

const mainLanguage = (document: BotDocument): string => document.languages[0] ?? 'en';

/** The texts whose sentence vectors training needs, each once; none where the language has no encoder. */
export function textsForTraining(document: BotDocument): string[] {
  if (!ENCODER_LANGUAGES.includes(mainLanguage(document))) return [];
  return [...new Set([...trainingTexts(document).map(({ text }) => text), ...BACKGROUND])];
}

/** Trains the model of a bot. @param vectors of every text of {@link textsForTraining} */
export function trainRecogniser(document: BotDocument, vectors: Vectors): IntentModel {
  const findAll = prepareFinders(document);
  const texts: TrainingText[] = trainingTexts(document).map((line) => ({ ...line, ...maskText(line.text, findAll) }));
  const background = BACKGROUND.map((text) => maskText(text, findAll));
  return trainIntentModel(texts, background, mainLanguage(document), vectors);
}

/** Makes a bot ready to read messages with a model trained on it. */
export function openRecogniser(document: BotDocument, model: IntentModel): Recogniser {
  const ranker = openIntentModel(model);
  const findAll = prepareFinders(document);
  const slotsOf = prepareIntentSlots(document);
  const known = new Set(document.intents.map((intent) => intent.name));
  return {
    document,
    recognise(text, vector, now) {
      const entities = findAll(tokenise(text), now);
      const ranking = ranker.rank(mask(text, entities), vector).filter((item) => known.has(item.intent));
      const { decision, candidates } = decide(ranking, document.gate);
      const best = ranking[0];
      return {
        text,
        intent: decision === 'none' ? null : (best?.intent ?? null),
        confidence: best?.confidence ?? 0,
        decision,
        candidates,
        ranking,
        slots: best ? slotsOf(best.intent, text, entities) : [],
        entities,
      };
    },
    readSlots: (intent, recognition, asked) => slotsOf(intent, recognition.text, recognition.entities, asked),
  };
}
