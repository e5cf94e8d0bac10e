import type { BotDocument } from '../bot/document.js';
import type { Vectors } from '../encode/encoder.js';
import { prepareSpeller } from '../text/spelling.js';
import { languageOf } from '../language/index.js';
import type { Language } from '../language/language.js';
import { goOn, type Check } from './check.js';
import { countTerms } from './features.js';
import type { Candidate } from './finders/finder.js';
import { prepareFinders, type FindAll } from './finders/index.js';
import { Similarities } from './gram.js';
import { FEW_UTTERANCES, imagine, withImagined, type Imagined } from './imagined.js';
import { trainIntentModel, type CountedText, type TrainingText } from './intentModel.js';
import type { RecogniserModel, UnreadUtterance } from './model.js';
import { modelText, SOME_DAY } from './modelText.js';
import { isEncoded, mainLanguage, prepareReader, readWith, wordsOf, type ReadText } from './reading.js';
import { textsForTaggers, trainTaggers, type TaggerMemory } from './tagger/tagger.js';

/** A text as it is learned from, with its values and the entities that could not be looked for. */
type FoundText = CountedText & { found: Candidate[]; failed: string[] };

/** What a training leaves for the next, which mostly has the same texts; without it all is found anew. */
export class TrainingMemory {
  #entities = '';
  #texts = new Map<string, FoundText>();
  readonly taggers: TaggerMemory = new Map();
  readonly similarities = new Similarities();

  /** Forgets the texts of other entities. */
  open(document: BotDocument): void {
    const entities = JSON.stringify([document.entities, document.forms, document.region]);
    if (entities !== this.#entities || this.#texts.size > MOST_REMEMBERED) this.#texts.clear();
    this.#entities = entities;
  }

  /** Counts the terms of a text, as it is read. */
  count(message: ReadText, vocabulary: ReadonlySet<string>, findAll: FindAll): FoundText {
    // Of the vocabulary only the text's own words matter to it.
    const key = `${message.text}\n${message.mended}\n${message.tokens.map(({ norm }) => (vocabulary.has(norm) ? 1 : 0)).join('')}`;
    const known = this.#texts.get(key);
    if (known) return known;
    const failed: string[] = [];
    const found = findAll(message, SOME_DAY, [], failed);
    const text = modelText(message.mended, message.tokens, found);
    const counted = { ...text, counts: countTerms(text), found, failed: [...new Set(failed)] };
    this.#texts.set(key, counted);
    return counted;
  }
}

const MOST_REMEMBERED = 60_000;

type PlainTraining = Pick<TrainingText, 'intent' | 'utterance' | 'part'> & { text: string };

/** An intent is known by its utterances and its description; by its name too, while it has few utterances. */
function trainingTexts(document: BotDocument): PlainTraining[] {
  return document.intents.flatMap((intent) => {
    const { name, utterances, description } = intent;
    const texts = utterances.map(({ text, id }): PlainTraining => ({
      text,
      intent: name,
      utterance: id,
      part: 'whole',
    }));
    const about = (text: string): PlainTraining => ({ text, intent: name, utterance: null, part: 'description' });
    const few = utterances.length < FEW_UTTERANCES;
    if (description !== undefined)
      texts.push(about(few && isEncoded(document) ? languageOf(document).asSaid(description) : description));
    if (few) texts.push(about(name.replace(/[_-]/g, ' ')));
    return texts;
  });
}

const backgrounds = new WeakMap<Language, readonly ReadText[]>();

/** The background of a language as messages are read: with its misspelt words put right. */
function backgroundOf(language: Language): readonly ReadText[] {
  let texts = backgrounds.get(language);
  if (!texts) {
    const speller = prepareSpeller(new Set(), language);
    texts = language.background.map((text) => readWith(text, language, (token) => speller.mend(token)));
    backgrounds.set(language, texts);
  }
  return texts;
}

/** What helps the intents that have few utterances. */
function imagineFor(document: BotDocument, texts: readonly TrainingText[], vectors: Vectors): Imagined[] {
  const few = new Set(
    document.intents.filter(({ utterances }) => utterances.length < FEW_UTTERANCES).map(({ name }) => name),
  );
  return imagine(
    texts.filter(({ intent }) => few.has(intent)),
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

/** The utterances in which values of some entities could not be looked for. */
const unreadOf = (texts: readonly (TrainingText & FoundText)[]): UnreadUtterance[] =>
  texts
    .filter(({ part, failed }) => part === 'whole' && failed.length > 0)
    .map(({ intent, written, failed }) => ({ intent, text: written, entities: failed }));

/** A bot that is about to be taught. */
export interface PreparedTraining {
  /** The texts whose sentence vectors training needs, each once; none where the language has no encoder. */
  readonly texts: string[];
  /**
   * @param vectors of every text of {@link texts}
   * @param check throws where the training is no longer wanted
   */
  train(vectors: Vectors, check?: Check): RecogniserModel;
}

/**
 * Reads everything that a bot is taught with, once.
 * @param memory what the training before left
 * @param options `slots`: whether it learns to find slots too, or knows intents alone
 */
export function prepareTraining(
  document: BotDocument,
  memory: TrainingMemory = new TrainingMemory(),
  { slots = true }: { slots?: boolean } = {},
): PreparedTraining {
  memory.open(document);
  const words = wordsOf(document);
  const reader = prepareReader(document, words);
  const readings = new Map<string, ReadText>();
  const readOnce = (text: string): ReadText => {
    const message = readings.get(text) ?? reader.read(text);
    readings.set(text, message);
    return message;
  };
  const taught = trainingTexts(document).map((own) => ({ ...own, message: readOnce(own.text) }));
  const encoded = isEncoded(document);
  const background = backgroundOf(languageOf(document));
  const needed = () => [
    ...taught.map(({ message }) => message.mended),
    ...background.map(({ mended }) => mended),
    ...(slots ? textsForTaggers(document, readOnce) : []),
  ];
  return {
    texts: encoded ? [...new Set(needed())] : [],
    train(vectors, check = goOn) {
      const findAll = prepareFinders(document, reader.vocabulary);
      const count = (message: ReadText) => {
        check();
        return memory.count(message, reader.vocabulary, findAll);
      };
      const counted = taught.map(({ text, message, ...own }): TrainingText & FoundText => ({
        ...count(message),
        written: text,
        ...own,
      }));
      const imagined = encoded ? imagineFor(document, counted, vectors) : [];
      const behind = background.map(count);
      const readForTagger = (text: string) => ({ message: readOnce(text), candidates: count(readOnce(text)).found });
      return {
        ...trainIntentModel({
          texts: [...counted, ...imagined.map(imaginedText)],
          background: behind,
          language: mainLanguage(document),
          vectors: withImagined(
            [...counted, ...behind].map(({ text }) => text),
            imagined,
            vectors,
          ),
          similarities: memory.similarities,
          check,
        }),
        words,
        taggers: !slots ? {} : trainTaggers(document, { readText: readForTagger, vectors }, memory.taggers),
        unread: unreadOf(counted),
      };
    },
  };
}
