import { ENCODER_LANGUAGES, VECTOR_LENGTH, type Vectors } from '../encode/encoder.js';
import { paddedColumns, paddedRows, Workspace } from '../linear/workspace.js';
import { calibrate, fitCalibration, forMessages, type Calibration } from './calibrate.js';
import {
  buildVocabulary,
  countTerms,
  indexTerms,
  weighTerms,
  type ModelText,
  type SparseVector,
  type TermCounts,
  type TermIndex,
  type Vocabulary,
} from './features.js';
import { LogisticProblem, softmaxRows, type Gram, type LogisticFit, type LogisticSettings } from './logistic.js';

/** A text to train with, its terms counted. */
export interface CountedText extends ModelText {
  counts: TermCounts;
}

/** A text with the intent it teaches. */
export interface TrainingText extends CountedText {
  /** The text as it was written, before misspelt words were put right. */
  written: string;
  intent: string;
  /** Index among the intent's utterances; `null` for a description, which is never scored. */
  utterance: number | null;
}

/** What the model, taught without an utterance's fold, makes of the utterance. */
export interface HeldOutPrediction {
  intent: string;
  utterance: number;
  text: string;
  /** The best intent, or `null` if nothing in the bot seemed likelier than what lies outside it. */
  predicted: string | null;
  confidence: number;
  /** Confidence of the intent the utterance belongs to. */
  ownConfidence: number;
}

/** Version of the shape and meaning of a model; one of another version is trained anew. */
export const MODEL_VERSION = 4;

/** A trained intent model. Plain data: numbers, texts and typed arrays. */
export interface IntentModel {
  version: typeof MODEL_VERSION;
  intents: string[];
  /** Whether the sentence encoder took part; n-grams alone carry the model otherwise. */
  encoded: boolean;
  vocabulary: Vocabulary;
  /** (intents + 1) × 512, row-major; the last row is for what lies outside the bot. */
  denseWeights: Float32Array;
  /** terms × (intents + 1), row-major. */
  termWeights: Float32Array;
  biases: Float32Array;
  calibration: Calibration;
  heldOut: HeldOutPrediction[];
  /** Utterances that took no part in the training because the bot has too many. */
  leftOut: number;
}

/** An intent with its probability. */
export interface RankedIntent {
  intent: string;
  confidence: number;
}

const ENCODER_WEIGHT = 1.25;
const FOLDS = 5;
/** A fold begins from the fit over all rows, from which it differs little. */
const FOLD_STEPS = 8;
/** Texts that take part in the training; of larger bots each intent gives an even share, and the rest is only scored. */
const MOST_TEXTS = 3000;
/** How much the whole background counts beside the whole of what the bot is taught, however large either is. */
const BACKGROUND_SHARE = 0.22;
/** A background message whose vector is this near (cosine) to a training text speaks of what the bot is for. */
const TOO_NEAR = 0.7;
/** A description counts as much as this many utterances, less those that the intent has; never less than one. */
const DESCRIPTION_WORTH = 4;
const SETTINGS: LogisticSettings = { inversePenalty: 10, maxSteps: 40, tolerance: 3e-3 };

interface Features {
  dense: Float32Array | null;
  sparse: SparseVector;
}

/** Adds the products of all pairs of sentence vectors to a Gram matrix. */
function addDenseProducts({ size, values }: Gram, vectors: readonly Float32Array[]): void {
  const [rows, wide] = [paddedRows(size), paddedColumns(size)];
  const space = new Workspace(rows * VECTOR_LENGTH + VECTOR_LENGTH * wide + wide + rows * wide + 64);
  const left = space.reserve(rows * VECTOR_LENGTH);
  vectors.forEach((vector, row) => {
    const target = space.view(left + row * VECTOR_LENGTH * 4, VECTOR_LENGTH);
    for (let at = 0; at < VECTOR_LENGTH; at++) target[at] = vector[at]! * ENCODER_WEIGHT;
  });
  const transposed = new Float32Array(VECTOR_LENGTH * size);
  vectors.forEach((vector, column) => {
    for (let at = 0; at < VECTOR_LENGTH; at++) transposed[at * size + column] = vector[at]! * ENCODER_WEIGHT;
  });
  const panels = space.reservePanels(VECTOR_LENGTH, size);
  space.fillPanels(panels, transposed, size);
  const zero = space.reserve(wide);
  const result = space.reserve(rows * wide);
  space.multiply(left, size, panels, zero, result);
  const products = space.view(result, rows * wide);
  for (let row = 0; row < size; row++) {
    for (let column = 0; column < size; column++) values[row * size + column]! += products[row * wide + column]!;
  }
}

/**
 * Adds the products of all pairs of term vectors to a Gram matrix. Each term keeps the texts that have it, so that only
 * texts with something in common meet.
 */
function addSparseProducts({ size, values }: Gram, vectors: readonly SparseVector[], terms: number): void {
  const starts = new Int32Array(terms + 1);
  for (const { indices } of vectors) for (const term of indices) starts[term + 1]!++;
  for (let term = 0; term < terms; term++) starts[term + 1]! += starts[term]!;
  const ends = starts.slice();
  const holders = new Int32Array(starts[terms]!);
  const shares = new Float64Array(starts[terms]!);
  const row = new Float64Array(size);
  vectors.forEach(({ indices, weights }, index) => {
    row.fill(0, 0, index + 1);
    indices.forEach((term, at) => {
      const weight = weights[at]!;
      holders[ends[term]!] = index;
      shares[ends[term]!++] = weight;
      for (let held = starts[term]!; held < ends[term]!; held++) row[holders[held]!]! += weight * shares[held]!;
    });
    for (let other = 0; other <= index; other++) {
      values[index * size + other]! += row[other]!;
      if (other !== index) values[other * size + index]! += row[other]!;
    }
  });
}

/**
 * Rows of the training: all that is taught, and the background messages that are far from all of it.
 * @param similarities products of the sentence vectors of all texts, the taught ones first
 */
function rowsToLearn(similarities: Gram, taught: number): number[] {
  const limit = TOO_NEAR * ENCODER_WEIGHT * ENCODER_WEIGHT;
  return Array.from({ length: similarities.size }, (_, row) => row).filter((row) => {
    if (row < taught) return true;
    for (let other = 0; other < taught; other++) {
      if (similarities.values[row * similarities.size + other]! >= limit) return false;
    }
    return true;
  });
}

function part(gram: Gram, rows: readonly number[]): Gram {
  const values = new Float32Array(rows.length * rows.length);
  rows.forEach((row, at) => {
    for (let into = 0; into < rows.length; into++)
      values[at * rows.length + into] = gram.values[row * gram.size + rows[into]!]!;
  });
  return { size: rows.length, values };
}

/** Deals the rows of each class to the folds in turn, so that each fold has its share of every class. */
function dealFolds(labels: Int32Array): Int32Array {
  const dealt = new Map<number, number>();
  return labels.map((label) => {
    const next = dealt.get(label) ?? 0;
    dealt.set(label, next + 1);
    return next % FOLDS;
  });
}

/**
 * Scores of each row by a model that did not learn from the row's fold: n × classes.
 * @param whole the fit over all rows, which the folds begin from
 */
function crossValidate(
  problem: LogisticProblem,
  labels: Int32Array,
  rowWeights: Float64Array,
  classes: number,
  whole: LogisticFit,
): Float64Array {
  const folds = dealFolds(labels);
  const scores = new Float64Array(labels.length * classes);
  for (let fold = 0; fold < FOLDS; fold++) {
    const learned = rowWeights.map((weight, row) => (folds[row] === fold ? 0 : weight));
    const { scores: all } = problem.fit(learned, whole.coefficients, FOLD_STEPS);
    folds.forEach((own, row) => {
      if (own === fold) scores.set(all.subarray(row * classes, (row + 1) * classes), row * classes);
    });
  }
  return scores;
}

function readHeldOut(
  texts: readonly TrainingText[],
  intents: readonly string[],
  probabilities: Float64Array,
): HeldOutPrediction[] {
  const classes = intents.length + 1;
  return texts.flatMap(({ written, intent, utterance }, row): HeldOutPrediction[] => {
    if (utterance === null) return [];
    const own = Array.from(probabilities.subarray(row * classes, (row + 1) * classes));
    const best = own.indexOf(Math.max(...own));
    return [
      {
        intent,
        utterance,
        text: written,
        predicted: intents[best] ?? null,
        confidence: own[best]!,
        ownConfidence: own[intents.indexOf(intent)]!,
      },
    ];
  });
}

/** Of too many texts, the first ones of each intent in turn; those left out are scored like any held-out text. */
function evenShare(given: readonly TrainingText[]): {
  texts: readonly TrainingText[];
  leftOut: readonly TrainingText[];
} {
  if (given.length <= MOST_TEXTS) return { texts: given, leftOut: [] };
  const dealt = new Map<string, number>();
  const places = given.map((text, index) => {
    const place = dealt.get(text.intent) ?? 0;
    dealt.set(text.intent, place + 1);
    return { index, place: text.utterance === null ? 0 : place };
  });
  places.sort((a, b) => a.place - b.place || a.index - b.index);
  const taken = new Set(places.slice(0, MOST_TEXTS).map(({ index }) => index));
  return {
    texts: given.filter((_, index) => taken.has(index)),
    leftOut: given.filter((_, index) => !taken.has(index)),
  };
}

/** Probabilities of texts that the model did not learn from: n × classes. */
function scoreAll(model: IntentModel, texts: readonly TrainingText[], vectors: Vectors): Float64Array {
  const classes = model.intents.length + 1;
  const index = indexTerms(model.vocabulary);
  const scores = new Float64Array(texts.length * classes);
  texts.forEach((text, row) =>
    scores.set(scoreText(model, index, text.counts, vectors.get(text.text) ?? null), row * classes),
  );
  return calibrate(scores, classes, model.calibration);
}

function vectorOf(text: string, vectors: Vectors): Float32Array {
  const vector = vectors.get(text);
  if (!vector) throw new Error(`No sentence vector for "${text}".`);
  return vector;
}

/** How much a training text counts: a description stands in for utterances that are not there yet. */
function weightOf({ intent, utterance }: TrainingText, texts: readonly TrainingText[]): number {
  if (utterance !== null) return 1;
  const utterances = texts.filter((other) => other.intent === intent && other.utterance !== null).length;
  return Math.max(1, DESCRIPTION_WORTH - utterances);
}

/** Adds a training text's share to the weights of the linear model. @param coefficients one a class */
function addWeights(model: IntentModel, { dense, sparse }: Features, coefficients: Float32Array): void {
  const classes = coefficients.length;
  sparse.indices.forEach((term, at) => {
    const weight = sparse.weights[at]!;
    for (let column = 0; column < classes; column++)
      model.termWeights[term * classes + column]! += weight * coefficients[column]!;
  });
  for (let column = 0; column < classes; column++) {
    model.biases[column]! += coefficients[column]!;
    if (!dense) continue;
    const scale = coefficients[column]! * ENCODER_WEIGHT * ENCODER_WEIGHT;
    const from = column * VECTOR_LENGTH;
    for (let at = 0; at < VECTOR_LENGTH; at++) model.denseWeights[from + at]! += scale * dense[at]!;
  }
}

/**
 * Trains an intent model on utterances and descriptions, with a background of messages that belong to no bot.
 * Deterministic: the same texts and vectors give the same model.
 * @param background messages that belong to no bot
 * @param vectors of the text of every line of both
 */
export function trainIntentModel(
  given: readonly TrainingText[],
  background: readonly CountedText[],
  language: string,
  vectors: Vectors,
): IntentModel {
  const encoded = ENCODER_LANGUAGES.includes(language);
  const { texts, leftOut } = evenShare(given);
  const intents = [...new Set(texts.map(({ intent }) => intent))];
  const classes = intents.length + 1;
  const everything: CountedText[] = [...texts, ...background];
  const similarities: Gram = { size: everything.length, values: new Float32Array(everything.length ** 2) };
  const dense = encoded ? everything.map(({ text }) => vectorOf(text, vectors)) : null;
  if (dense) addDenseProducts(similarities, dense);
  const learned = rowsToLearn(similarities, texts.length);
  const all = learned.map((row) => everything[row]!);
  const labels = Int32Array.from(all.keys(), (row) =>
    row < texts.length ? intents.indexOf(texts[row]!.intent) : intents.length,
  );
  const vocabulary = buildVocabulary(all.map(({ counts }) => counts));
  const index = indexTerms(vocabulary);
  const sparse = all.map(({ counts }) => weighTerms(counts, vocabulary, index));
  const gram = part(similarities, learned);
  // One more for every pair stands for the bias.
  for (let at = 0; at < gram.values.length; at++) gram.values[at]! += 1;
  addSparseProducts(gram, sparse, vocabulary.terms.length);
  const backgroundWeight = (BACKGROUND_SHARE * texts.length) / Math.max(1, all.length - texts.length);
  const rowWeights = Float64Array.from(all.keys(), (row) =>
    row < texts.length ? weightOf(texts[row]!, texts) : backgroundWeight,
  );
  const problem = new LogisticProblem(gram, labels, classes, SETTINGS);
  const whole = problem.fit(rowWeights);
  const model: IntentModel = {
    version: MODEL_VERSION,
    intents,
    encoded,
    vocabulary,
    denseWeights: new Float32Array(encoded ? classes * VECTOR_LENGTH : 0),
    termWeights: new Float32Array(vocabulary.terms.length * classes),
    biases: new Float32Array(classes),
    calibration: { temperature: 1, outsideOffset: 0 },
    heldOut: [],
    leftOut: leftOut.length,
  };
  learned.forEach((from, row) => {
    const own = { dense: dense?.[from] ?? null, sparse: sparse[row]! };
    addWeights(model, own, whole.coefficients.subarray(row * classes, (row + 1) * classes));
  });
  const scores = crossValidate(problem, labels, rowWeights, classes, whole);
  const heldOut = fitCalibration(scores, classes, labels, rowWeights);
  model.calibration = forMessages(heldOut);
  model.heldOut = [
    ...readHeldOut(texts, intents, calibrate(scores, classes, heldOut)),
    ...readHeldOut(leftOut, intents, scoreAll(model, leftOut, vectors)),
  ];
  return model;
}

/** A message, or a sentence of one, to be ranked. */
export interface RankedPart {
  text: ModelText;
  /** Its sentence vector; without one, n-grams alone decide. */
  vector: Float32Array | null;
  /** How much it asks for something, beside its neighbours. */
  weight: number;
}

/** A model ready to rank messages. */
export interface IntentRanker {
  /**
   * Ranks all intents, best first. Probabilities add up to one together with that of lying outside the bot.
   * @param sentences of a message of several; none of a message of one
   */
  rank(whole: RankedPart, sentences: readonly RankedPart[]): RankedIntent[];
  /** Compares one text with others as the model sees them: 1 for the same, 0 for nothing in common. */
  compare(one: Omit<RankedPart, 'weight'>): (other: Omit<RankedPart, 'weight'>) => number;
}

/** How much the sentences of a long message count beside the message as a whole. */
const SENTENCE_SHARE = 0.5;
const LEAST_PROBABILITY = 1e-9;

/**
 * Joins what the whole message and its sentences say: the geometric mean of the probabilities, in which a sentence
 * counts the more, the more it asks for something and the likelier it lies within the bot.
 * @param parts probabilities of each sentence, the last that of lying outside
 */
function joinSentences(
  whole: Float64Array,
  parts: readonly { probabilities: Float64Array; weight: number }[],
): Float64Array {
  const weights = parts.map(({ probabilities, weight }) => weight * (1 - probabilities.at(-1)!) + LEAST_PROBABILITY);
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const log = (probability: number) => Math.log(Math.max(LEAST_PROBABILITY, probability));
  const joined = whole.map(
    (own, column) =>
      (1 - SENTENCE_SHARE) * log(own) +
      parts.reduce(
        (sum, { probabilities }, at) => sum + (SENTENCE_SHARE * weights[at]! * log(probabilities[column]!)) / total,
        0,
      ),
  );
  softmaxRows(joined, joined.length, new Int32Array([-1]));
  return joined;
}

function scoreText(
  model: IntentModel,
  index: TermIndex,
  counts: TermCounts,
  vector: Float32Array | null,
): Float64Array {
  const classes = model.intents.length + 1;
  const scores = Float64Array.from(model.biases);
  const { indices, weights } = weighTerms(counts, model.vocabulary, index);
  indices.forEach((term, at) => {
    for (let column = 0; column < classes; column++)
      scores[column]! += weights[at]! * model.termWeights[term * classes + column]!;
  });
  if (vector && model.encoded) {
    for (let column = 0; column < classes; column++) {
      const from = column * VECTOR_LENGTH;
      for (let at = 0; at < VECTOR_LENGTH; at++) scores[column]! += vector[at]! * model.denseWeights[from + at]!;
    }
  }
  return scores;
}

/** Makes a trained model ready for use. */
export function openIntentModel(model: IntentModel): IntentRanker {
  const index = indexTerms(model.vocabulary);
  return {
    rank(whole, sentences) {
      if (model.intents.length === 0) return [];
      const read = ({ text, vector }: RankedPart): Float64Array => {
        const scores = scoreText(model, index, countTerms(text), vector);
        return calibrate(scores, scores.length, model.calibration);
      };
      const parts = sentences.map((part) => ({ probabilities: read(part), weight: part.weight }));
      const probabilities = parts.length === 0 ? read(whole) : joinSentences(read(whole), parts);
      return model.intents
        .map((intent, column) => ({ intent, confidence: probabilities[column]! }))
        .sort((a, b) => b.confidence - a.confidence || (a.intent < b.intent ? -1 : 1));
    },
    compare(one) {
      const dense = ({ vector }: Omit<RankedPart, 'weight'>) => (model.encoded ? vector : null);
      const sparse = ({ text }: Omit<RankedPart, 'weight'>) => weighTerms(countTerms(text), model.vocabulary, index);
      const [own, ownVector] = [sparse(one), dense(one)];
      const weights = new Map([...own.indices].map((place, at) => [place, own.weights[at]!]));
      const product = (other: SparseVector, vector: Float32Array | null): number => {
        let sum = 0;
        other.indices.forEach((place, at) => (sum += other.weights[at]! * (weights.get(place) ?? 0)));
        if (ownVector && vector) {
          let cosine = 0;
          for (let at = 0; at < VECTOR_LENGTH; at++) cosine += ownVector[at]! * vector[at]!;
          sum += ENCODER_WEIGHT * ENCODER_WEIGHT * cosine;
        }
        return sum;
      };
      const length = ({ weights: own }: SparseVector, vector: Float32Array | null): number =>
        Math.sqrt(own.reduce((sum, weight) => sum + weight * weight, vector ? ENCODER_WEIGHT * ENCODER_WEIGHT : 0));
      const ownLength = length(own, ownVector);
      return (other) => {
        const [their, theirVector] = [sparse(other), dense(other)];
        const lengths = ownLength * length(their, theirVector);
        return lengths === 0 ? 0 : Math.max(0, Math.min(1, product(their, theirVector) / lengths));
      };
    },
  };
}
