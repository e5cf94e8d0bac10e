import { isEncodedLanguage, VECTOR_LENGTH, type Vectors } from '../encode/encoder.js';
import { RowTable } from '../linear/rowTable.js';
import type { RowId } from '../bot/document.js';
import { product } from '../linear/workspace.js';
import { goOn, type Check } from './check.js';
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
import type { Similarities } from './gram.js';
import { addSparseProducts, denseRows, submatrix, type Gram } from './gram.js';
import { joinSentences } from './joinSentences.js';
import { LogisticProblem, type LogisticSettings } from './logistic.js';
import { keepTexts, nearestRows, openTexts, type FindNearest, type TaughtTexts } from './nearest.js';

/** A text to train with, its terms counted. */
export interface CountedText extends ModelText {
  counts: TermCounts;
}

/** What a training text is: an utterance, words about the intent, or a vector that nobody wrote. */
export type TextPart = 'whole' | 'description' | 'imagined';

/** A text with the intent it teaches. */
export interface TrainingText extends CountedText {
  /** The text as it was written, before misspelt words were put right. */
  written: string;
  intent: string;
  /** Which of the intent's utterances it is of; `null` for a description, which is never scored. */
  utterance: RowId | null;
  /** What it is of the intent; only whole utterances are scored. */
  part: TextPart;
}

/** What the model, taught without an utterance's fold, makes of the utterance. */
export interface HeldOutPrediction {
  intent: string;
  utterance: RowId;
  text: string;
  /** The first intent of the ranking, as a test run counts it. */
  predicted: string | null;
  confidence: number;
  /** Confidence of the intent the utterance belongs to. */
  ownConfidence: number;
}

/** Version of the shape and meaning of a model; one of another version is trained anew. */
export const MODEL_VERSION = 16;

/** A trained intent model. Plain data: numbers, texts and typed arrays. */
export interface IntentModel {
  version: typeof MODEL_VERSION;
  intents: string[];
  /** Whether the sentence encoder took part; n-grams alone carry the model otherwise. */
  encoded: boolean;
  vocabulary: Vocabulary;
  /** (intents + 1) × VECTOR_LENGTH, row-major; the last row is for what lies outside the bot. */
  denseWeights: Float32Array;
  /** terms × (intents + 1), row-major. */
  termWeights: Float32Array;
  biases: Float32Array;
  /** What it was taught, where that is little enough for the nearest text to tell something; `null` otherwise. */
  taught: TaughtTexts | null;
  calibration: Calibration;
  /** Log-odds taken off for messages that are not what was taught, because so few intents tell little of what lies outside. */
  caution: number;
  /** How much the confidence of each intent is worth by the number of its utterances, 0..1. */
  reliability: number[];
  heldOut: HeldOutPrediction[];
  /** Utterances that took no part in the training because the bot has too many. */
  leftOut: number;
}

/** An intent with its probability. */
export interface RankedIntent {
  intent: string;
  confidence: number;
}

const ENCODER_WEIGHT = 2;
/** How two texts are compared: the cosine of their vectors, beside the product of their terms; one for all is the bias. */
const KERNEL = { dense: ENCODER_WEIGHT ** 2, constant: 1 };
/** How much the nearest text of each class counts beside what all of them say. */
const NEAREST_SHARE = 1;
/** Ten take half as long again to train and tell how sure to be no better: measured on eleven trades. */
const FOLDS = 5;
/** Folds of a bot so large that more is left out than taught: what is left out is scored anyway. */
const FEWER_FOLDS = 2;
/** A fold begins from the fit over all rows, from which it differs little. */
const FOLD_STEPS = 8;
/** Texts that take part in the training; of larger bots each intent gives an even share, and the rest is only scored. */
const MOST_TEXTS = 3000;
/** How much the whole background counts beside the whole of what the bot is taught, however large either is. */
const BACKGROUND_SHARE = 0.3;
/** A background message whose vector is this near (cosine) to a training text speaks of what the bot is for. */
const TOO_NEAR = 0.85;
/** A description counts as much as this many utterances, less those that the intent has; never less than one. */
const DESCRIPTION_WORTH = 4;
const SETTINGS: LogisticSettings = { inversePenalty: 10, maxSteps: 40, tolerance: 3e-3, check: goOn };

/**
 * Rows of the training: all that is taught, and the background messages that are far from all of it.
 * @param similarities of all texts, the taught ones first
 */
function rowsToLearn(similarities: Gram, taught: number): number[] {
  return Array.from({ length: similarities.size }, (_, row) => row).filter((row) => {
    if (row < taught) return true;
    for (let other = 0; other < taught; other++) {
      if (similarities.values[row * similarities.size + other]! > TOO_NEAR) return false;
    }
    return true;
  });
}

const NO_FOLD = -1;

/**
 * Deals the rows of each class to the folds in turn, so that each fold has its share of every class. Texts of the same
 * words go into the same fold, for a text that stands twice would be known from the other.
 * @param texts of the first rows; what is imagined goes into no fold
 */
function dealFolds(labels: Int32Array, texts: readonly TrainingText[], count: number): Int32Array {
  const dealt = new Map<number, number>();
  const bySame = new Map<string, number>();
  return labels.map((label, row) => {
    const text = texts[row];
    if (text?.part === 'imagined') return NO_FOLD;
    const same = text?.words.join(' ');
    const known = same === undefined ? undefined : bySame.get(same);
    if (known !== undefined) return known;
    const next = dealt.get(label) ?? 0;
    dealt.set(label, next + 1);
    const fold = next % count;
    if (same !== undefined) bySame.set(same, fold);
    return fold;
  });
}

/** What is learned: rows with their labels and weights. */
interface Problem {
  gram: Gram;
  labels: Int32Array;
  /** Whether a row is a text that somebody wrote, and the nearest of which counts; none where that does not count. */
  isNearing: readonly boolean[];
  rowWeights: Float64Array;
  classes: number;
  settings: LogisticSettings;
}

/**
 * Scores of each row by a model that did not learn from the row's fold: n × classes.
 * @param whole coefficients of the fit over all rows, which the folds begin from
 * @param folds of each row, from 0
 */
function crossValidate(
  { gram, labels, isNearing, rowWeights, classes, settings }: Problem,
  whole: Float32Array,
  folds: Int32Array,
): Float64Array {
  const scores = new Float64Array(labels.length * classes);
  const last = Math.max(...folds);
  for (let fold = 0; fold <= last; fold++) {
    const [held, kept]: [number[], number[]] = [[], []];
    folds.forEach((own, row) => (own === fold ? held : kept).push(row));
    const own = <T>(array: ArrayLike<T>): T[] => kept.map((row) => array[row]!);
    const start = new Float32Array(kept.length * classes);
    kept.forEach((row, at) => start.set(whole.subarray(row * classes, (row + 1) * classes), at * classes));
    const known = { size: kept.length, values: submatrix(gram, kept, kept) };
    const problem = new LogisticProblem(known, Int32Array.from(own(labels)), classes, settings);
    const coefficients = problem.fit(Float64Array.from(own(rowWeights)), { coefficients: start, steps: FOLD_STEPS });
    const shape = { rows: held.length, inner: kept.length, columns: classes };
    const heldScores = product(submatrix(gram, held, kept), coefficients, shape);
    const near = { among: kept.filter((row) => isNearing[row]), labels, classes };
    held.forEach((row, at) => {
      scores.set(heldScores.subarray(at * classes, (at + 1) * classes), row * classes);
      addNearest(nearestRows(gram, row, near), scores.subarray(row * classes, (row + 1) * classes));
    });
  }
  return scores;
}

function addNearest(nearest: Float64Array, scores: Float64Array): void {
  nearest.forEach((height, column) => (scores[column]! += NEAREST_SHARE * height));
}

function readHeldOut(
  texts: readonly TrainingText[],
  intents: readonly string[],
  probabilities: Float64Array,
): HeldOutPrediction[] {
  const classes = intents.length + 1;
  return texts.flatMap(({ written, intent, utterance, part }, row): HeldOutPrediction[] => {
    if (utterance === null || part !== 'whole') return [];
    const own = Array.from(probabilities.subarray(row * classes, (row + 1) * classes - 1));
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
function evenShare(everything: readonly TrainingText[]): {
  texts: readonly TrainingText[];
  leftOut: readonly TrainingText[];
} {
  if (everything.length <= MOST_TEXTS) return { texts: everything, leftOut: [] };
  const dealt = new Map<string, number>();
  const places = everything.map((text, index) => {
    const place = dealt.get(text.intent) ?? 0;
    dealt.set(text.intent, place + 1);
    return { index, place: text.utterance === null ? 0 : place };
  });
  places.sort((a, b) => a.place - b.place || a.index - b.index);
  const taken = new Set(places.slice(0, MOST_TEXTS).map(({ index }) => index));
  return {
    texts: everything.filter((_, index) => taken.has(index)),
    leftOut: everything.filter((_, index) => !taken.has(index)),
  };
}

function join(a: Float64Array, b: Float64Array): Float64Array {
  const joined = new Float64Array(a.length + b.length);
  joined.set(a);
  joined.set(b, a.length);
  return joined;
}

/** Scores of texts that the model did not learn from: n × classes. */
function scoreAll(model: IntentModel, texts: readonly TrainingText[], vectors: Vectors): Float64Array {
  const classes = model.intents.length + 1;
  const index = indexTerms(model.vocabulary);
  const scores = new Float64Array(texts.length * classes);
  if (model.encoded) {
    const rows = denseRows(
      texts.map(({ text }) => text),
      vectors,
    );
    const shape = { rows: texts.length, inner: VECTOR_LENGTH, columns: classes, transposed: true };
    scores.set(product(rows, model.denseWeights, shape));
  }
  texts.forEach(({ counts }, row) =>
    addTermScores(
      model,
      weighTerms(counts, model.vocabulary, index),
      scores.subarray(row * classes, (row + 1) * classes),
    ),
  );
  return scores;
}

/** How much a training text counts: descriptions stand in for utterances that are not there yet. */
function weightOf({ intent, part }: TrainingText, texts: readonly TrainingText[]): number {
  if (part !== 'description') return 1;
  const own = texts.filter((other) => other.intent === intent);
  const [utterances, descriptions] = (['whole', 'description'] as const).map(
    (kind) => own.filter((other) => other.part === kind).length,
  ) as [number, number];
  return Math.max(1, DESCRIPTION_WORTH - utterances) / descriptions;
}

/** The weights of the terms and the biases of the linear model. @param coefficients texts × classes */
function weightsOf(
  coefficients: Float32Array,
  classes: number,
  sparse: readonly SparseVector[],
  terms: number,
): Pick<IntentModel, 'termWeights' | 'biases'> {
  const termWeights = new Float32Array(terms * classes);
  const biases = new Float32Array(classes);
  sparse.forEach(({ indices, weights }, row) => {
    const from = row * classes;
    for (let column = 0; column < classes; column++) biases[column]! += coefficients[from + column]!;
    for (let at = 0; at < indices.length; at++) {
      const [to, weight] = [indices[at]! * classes, weights[at]!];
      for (let column = 0; column < classes; column++)
        termWeights[to + column]! += weight * coefficients[from + column]!;
    }
  });
  return { termWeights, biases };
}

/** The weights of the sentence vectors, classes × VECTOR_LENGTH. @param coefficients texts × classes */
function denseWeights(
  coefficients: Float32Array,
  classes: number,
  texts: readonly CountedText[],
  vectors: Vectors,
): Float32Array {
  const rows = denseRows(
    texts.map(({ text }) => text),
    vectors,
  );
  const transposed = new Float32Array(classes * texts.length);
  for (let row = 0; row < texts.length; row++) {
    for (let column = 0; column < classes; column++)
      transposed[column * texts.length + row] = KERNEL.dense * coefficients[row * classes + column]!;
  }
  return product(transposed, rows, { rows: classes, inner: texts.length, columns: VECTOR_LENGTH });
}

/** Rows that were learned, with what each is made of. */
interface LearnedRows extends Pick<Problem, 'labels' | 'isNearing'> {
  all: readonly CountedText[];
  sparse: readonly SparseVector[];
  /** How many terms the vocabulary has. */
  terms: number;
}

/** Keeps the texts the nearest of which counts; `null` where there are none. @param vectors `null` without an encoder */
function taughtTexts(
  { all, labels, sparse, isNearing, terms }: LearnedRows,
  vectors: Vectors | null,
): TaughtTexts | null {
  const kept = [...all.keys()].filter((row) => isNearing[row]);
  if (kept.length === 0) return null;
  const texts = kept.map((row) => all[row]!.text);
  const dense = vectors ? denseRows(texts, vectors) : new Float32Array();
  return keepTexts(
    kept.map((row) => ({ label: labels[row]!, sparse: sparse[row]! })),
    dense,
    terms,
  );
}

/** What an intent model is trained with. */
export interface IntentLesson {
  texts: readonly TrainingText[];
  /** Messages that belong to no bot. */
  background: readonly CountedText[];
  language: string;
  /** Of the text of every line of both. */
  vectors: Vectors;
  /** Of the training before. */
  similarities: Similarities;
  check: Check;
}

/**
 * Trains an intent model on utterances and descriptions, with a background of messages that belong to no bot.
 * Deterministic: the same texts and vectors give the same model.
 */
export function trainIntentModel({
  texts: given,
  background,
  language,
  vectors,
  similarities,
  check,
}: IntentLesson): IntentModel {
  const encoded = isEncodedLanguage(language);
  const { texts, leftOut } = evenShare(given);
  const intents = [...new Set(texts.map(({ intent }) => intent))];
  const classes = intents.length + 1;
  const everything: CountedText[] = [...texts, ...background];
  const similar = encoded
    ? similarities.of(
        everything.map(({ text }) => text),
        vectors,
      )
    : { size: everything.length, values: new Float32Array(everything.length ** 2) };
  const learned = rowsToLearn(similar, texts.length);
  const all = learned.map((row) => everything[row]!);
  const labels = Int32Array.from(all.keys(), (row) =>
    row < texts.length ? intents.indexOf(texts[row]!.intent) : intents.length,
  );
  const vocabulary = buildVocabulary(all.map(({ counts }) => counts));
  const index = indexTerms(vocabulary);
  const sparse = all.map(({ counts }) => weighTerms(counts, vocabulary, index));
  const isNearing = all.map((_, row) => leftOut.length === 0 && texts[row]?.part !== 'imagined');
  const gram = {
    size: learned.length,
    values: submatrix(similar, learned, learned, { scale: KERNEL.dense, constant: KERNEL.constant }),
  };
  addSparseProducts(gram, sparse, vocabulary.terms.length);
  const backgroundWeight = (BACKGROUND_SHARE * texts.length) / Math.max(1, all.length - texts.length);
  const rowWeights = Float64Array.from(all.keys(), (row) =>
    row < texts.length ? weightOf(texts[row]!, texts) : backgroundWeight,
  );
  const settings = { ...SETTINGS, check };
  const whole = new LogisticProblem(gram, labels, classes, settings).fit(rowWeights);
  const model: IntentModel = {
    version: MODEL_VERSION,
    intents,
    encoded,
    vocabulary,
    ...weightsOf(whole, classes, sparse, vocabulary.terms.length),
    denseWeights: encoded ? denseWeights(whole, classes, all, vectors) : new Float32Array(),
    taught: taughtTexts({ all, labels, sparse, isNearing, terms: vocabulary.terms.length }, encoded ? vectors : null),
    calibration: { temperature: 1, outsideOffset: 0 },
    caution: cautionOf(intents.length),
    reliability: intents.map((intent) =>
      reliabilityOf(texts.filter((text) => text.intent === intent && text.part === 'whole').length),
    ),
    heldOut: [],
    leftOut: leftOut.length,
  };
  const problem = { gram, labels, isNearing, rowWeights, classes, settings };
  judge(model, { problem, whole, texts, leftOut, vectors });
  return model;
}

/** What a model is judged by. */
interface Judging {
  problem: Parameters<typeof crossValidate>[0];
  /** The fit with everything. */
  whole: Parameters<typeof crossValidate>[1];
  texts: readonly TrainingText[];
  /** Texts that took no part. */
  leftOut: readonly TrainingText[];
  vectors: Vectors;
}

/** Finds out how sure a model may be, and what it makes of what it did not learn from. */
function judge(model: IntentModel, { problem, whole, texts, leftOut, vectors }: Judging): void {
  const { labels, rowWeights, classes } = problem;
  const { intents } = model;
  // What was left out tells how sure the model may be better than folds do, which learn from less.
  const mostLeftOut = leftOut.length > texts.length;
  const folds = dealFolds(labels, texts, mostLeftOut ? FEWER_FOLDS : FOLDS);
  const heldScores = crossValidate(problem, whole, folds);
  const leftScores = scoreAll(model, leftOut, vectors);
  const unscored = (row: number) => row < texts.length && (mostLeftOut || texts[row]!.part === 'imagined');
  const heldWeights = rowWeights.map((weight, row) => (unscored(row) ? 0 : weight));
  const heldOut = fitCalibration(
    join(heldScores, leftScores),
    classes,
    Int32Array.from([...labels, ...leftOut.map(({ intent }) => intents.indexOf(intent))]),
    Float64Array.from([...heldWeights, ...leftOut.map(() => 1)]),
  );
  model.calibration = forMessages(heldOut);
  // Judged as the model in use judges.
  model.heldOut = [
    ...readHeldOut(texts, intents, carefully(heldScores, classes, model)),
    ...readHeldOut(leftOut, intents, carefully(leftScores, classes, model)),
  ];
}

/**
 * What a bot of few intents cannot tell: it has seen hardly anything of what its trade's customers say, and what the
 * background holds is far from all of it. Measured on bots of one to five intents cut from eleven trades: with less than
 * this, well more than one in ten of what they accepted was meant for an intent that they do not have.
 */
const FEW_INTENTS = 5;
const ENOUGH_INTENTS = 8;
const CAUTION = 8;

const cautionOf = (intents: number): number =>
  CAUTION * Math.min(1, Math.max(0, (ENOUGH_INTENTS - intents) / (ENOUGH_INTENTS - FEW_INTENTS)));

const withCaution = ({ temperature, outsideOffset }: Calibration, caution: number): Calibration => ({
  temperature,
  outsideOffset: outsideOffset + caution * temperature,
});

/** With so much care a message is worth asking about; measured on the same bots. */
const CARE_TO_ASK = 4;
/** As sure as that a bot may be of what it only asks about. */
const MOST_TO_ASK = 0.8;

/**
 * Turns scores (n × classes) into probabilities as a bot of few intents does: it is sure of next to nothing, and what is
 * likely it is sure enough of to ask.
 */
function carefully(
  scores: Float64Array,
  classes: number,
  { calibration, caution }: Pick<IntentModel, 'calibration' | 'caution'>,
): Float64Array {
  const sure = calibrate(scores, classes, withCaution(calibration, caution));
  if (caution === 0) return sure;
  const likely = calibrate(scores, classes, withCaution(calibration, Math.min(caution, CARE_TO_ASK)));
  for (let from = 0; from < sure.length; from += classes) {
    let outside = 1;
    for (let at = from; at < from + classes - 1; at++)
      outside -= sure[at] = Math.max(sure[at]!, MOST_TO_ASK * likely[at]!);
    sure[from + classes - 1] = Math.max(0, outside);
  }
  return sure;
}

/** An intent of so many utterances is known well enough to be acted on; with fewer it is worth asking about. */
const ENOUGH_UTTERANCES = 5;
const WORTH_OF_NONE = 0.75;

const reliabilityOf = (utterances: number): number =>
  Math.min(1, WORTH_OF_NONE + ((1 - WORTH_OF_NONE) * utterances) / ENOUGH_UTTERANCES);

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
   * @param taught whether the message is one that the bot was taught, but for its values
   */
  rank(whole: RankedPart, sentences: readonly RankedPart[], taught: boolean): RankedIntent[];
  /** Compares one text with others as the model sees them: 1 for the same, 0 for nothing in common. */
  compare(one: Omit<RankedPart, 'weight'>): (other: Omit<RankedPart, 'weight'>) => number;
}

/** Adds what the biases and the terms of a text say to its scores. */
function addTermScores(
  { termWeights, biases }: IntentModel,
  { indices, weights }: SparseVector,
  scores: Float64Array,
): void {
  const classes = scores.length;
  for (let column = 0; column < classes; column++) scores[column]! += biases[column]!;
  for (let at = 0; at < indices.length; at++) {
    const [from, weight] = [indices[at]! * classes, weights[at]!];
    for (let column = 0; column < classes; column++) scores[column]! += weight * termWeights[from + column]!;
  }
}

/** What a model in use looks things up in. */
interface Opened {
  index: TermIndex;
  /** The weights of the sentence vectors. */
  dense: RowTable;
  findNearest: FindNearest | null;
}

function scoreText(
  model: IntentModel,
  { index, dense, findNearest }: Opened,
  { text, vector }: RankedPart,
): Float64Array {
  const scores = new Float64Array(model.intents.length + 1);
  const sparse = weighTerms(countTerms(text), model.vocabulary, index);
  addTermScores(model, sparse, scores);
  if (vector) dense.products(vector).forEach((product, column) => (scores[column]! += product));
  if (findNearest) addNearest(findNearest(sparse, vector), scores);
  return scores;
}

/** A message of fewer words says too little for it to be told from what lies outside. */
const FEW_WORDS = 7;
/** Taken off the log-odds of lying outside for a message without words, and the less for one of some. */
const VAGUE = 3;

const forLength = ({ temperature, outsideOffset }: Calibration, words: number): Calibration => ({
  temperature,
  outsideOffset: outsideOffset - VAGUE * Math.max(0, 1 - words / FEW_WORDS) * temperature,
});

/** Makes a trained model ready for use. */
export function openIntentModel(model: IntentModel): IntentRanker {
  const index = indexTerms(model.vocabulary);
  const opened: Opened = {
    index,
    dense: new RowTable(model.denseWeights, VECTOR_LENGTH),
    findNearest: model.taught && openTexts(model.taught, model.intents.length + 1, KERNEL),
  };
  return {
    rank(whole, sentences, taught) {
      if (model.intents.length === 0) return [];
      const read = (part: RankedPart): Float64Array => {
        const scores = scoreText(model, opened, part);
        const calibration = forLength(model.calibration, part.text.words.length);
        return taught
          ? calibrate(scores, scores.length, calibration)
          : carefully(scores, scores.length, { calibration, caution: model.caution });
      };
      const parts = sentences.map((part) => ({ probabilities: read(part), weight: part.weight }));
      const probabilities = parts.length === 0 ? read(whole) : joinSentences(read(whole), parts);
      return model.intents
        .map((intent, column) => ({
          intent,
          confidence: probabilities[column]! * (taught ? 1 : model.reliability[column]!),
        }))
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
          sum += KERNEL.dense * cosine;
        }
        return sum;
      };
      const length = ({ weights: own }: SparseVector, vector: Float32Array | null): number =>
        Math.sqrt(own.reduce((sum, weight) => sum + weight * weight, vector ? KERNEL.dense : 0));
      const ownLength = length(own, ownVector);
      return (other) => {
        const [their, theirVector] = [sparse(other), dense(other)];
        const lengths = ownLength * length(their, theirVector);
        return lengths === 0 ? 0 : Math.max(0, Math.min(1, product(their, theirVector) / lengths));
      };
    },
  };
}
