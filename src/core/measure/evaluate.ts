import { findEntity, formOfIntent, type BotDocument } from '../bot/document.js';
import type { Vectors } from '../encode/encoder.js';
import { TAGS, type TagName } from '../formats/tags.js';
import type { TestLine } from '../formats/testFile.js';
import { MOST_CANDIDATES, type Decision } from '../recognise/gate.js';
import type { RankedIntent } from '../recognise/intentModel.js';
import type { Encode } from '../recognise/answer.js';
import type { Recogniser } from '../recognise/open.js';
import type { Recognition } from '../recognise/recognition.js';
import { tokenise } from '../text/tokens.js';
import {
  accuracy,
  areaUnderRoc,
  calibrationOf,
  classMeasures,
  confusionMatrix,
  kappa,
  mean,
  OUT_OF_SCOPE,
  together,
  weightedF1,
  type CalibrationBin,
  type ClassMeasure,
  type Confusion,
} from './classification.js';
import { slotFigures, type SlotFigures, type SlotLine } from './slotFigures.js';
import { shareInterval, type ShareInterval } from './interval.js';

/** How one test line was read. */
export interface LineResult extends SlotLine {
  /** `null`: out of scope; `undefined`: the line does not say. */
  expected: string | null | undefined;
  predicted: string | null;
  confidence: number;
  decision: Decision;
  /** The first intents of the ranking, as many as the gate may ask about; runs of before do not have them. */
  top?: readonly RankedIntent[];
  /** Place of the expected intent in the ranking, 1 for the first; `null` out of scope or where it is not ranked. */
  place: number | null;
  style?: string;
  tags?: Readonly<Partial<Record<TagName, string>>>;
  /** Entities that could not be looked for in the text. */
  unread?: string[];
  /** Whether the bot was taught this very message, so that reading it proves nothing. */
  taught?: boolean;
}

/** What the three outcomes came to. */
export interface GateMeasure {
  accepted: number;
  asked: number;
  none: number;
  /** Of what was accepted, the share that was right. */
  acceptedPrecision: number | null;
  /** Of the messages in scope, the share that was accepted. */
  acceptedInScope: number | null;
  /** Of the messages out of scope, the share that was not matched. */
  outOfScopeRecall: number | null;
}

/** The measures of a test run. Shares are 0..1, or `null` where nothing was there to count. */
export interface Evaluation {
  lines: number;
  inScope: number;
  outOfScope: number;
  /** Share of the messages in scope whose first intent is the expected one. */
  accuracy: number | null;
  topThree: number | null;
  macro: { precision: number | null; recall: number | null; f1: number | null };
  /** The mean F1, each intent counting as often as it is tested. */
  weightedF1: number | null;
  /** Agreement beyond chance, what is out of scope being a label as well. */
  kappa: number | null;
  auroc: number | null;
  /** Of the messages in scope. */
  calibrationError: number | null;
  calibration: CalibrationBin[];
  /** Of all messages: what is out of scope is right only where nothing is accepted, so a sure bot is wrong there. */
  calibrationErrorOverall: number | null;
  /** Lines that were also taught; they are in no figure. */
  taught: number;
  gate: GateMeasure;
  /** Slots of the lines that list theirs, matched by slot and exact stretch of text. */
  slotF1: number | null;
  /** The same by other ways of matching; runs of before do not have them. */
  slots?: SlotFigures;
  /** By where the messages come from; runs of before do not have them. */
  tags?: { tag: TagName; value: string; lines: number; accuracy: number | null }[];
  intents: ClassMeasure[];
  confusion: Confusion;
  styles: { style: string; lines: number; accuracy: number | null }[];
}

/** A message as it is compared with what was taught: its words alone. */
export const foldMessage = (text: string): string =>
  tokenise(text)
    .tokens.map(({ norm }) => norm)
    .join(' ');

/** The utterances of a bot, folded, to tell which test lines it was taught. */
export const taughtMessages = (document: BotDocument): ReadonlySet<string> =>
  new Set(document.intents.flatMap(({ utterances }) => utterances.map(({ text }) => foldMessage(text))));

/** Reads one line's result off a recognition. */
function lineResult(
  { document }: Recogniser,
  line: TestLine,
  recognition: Recognition,
  { taught }: { taught: boolean },
): LineResult {
  const form = typeof line.intent === 'string' ? formOfIntent(document, line.intent) : undefined;
  const entityOf = (name: string): string | undefined =>
    form ? form.slots.find((slot) => slot.name === name)?.entity : findEntity(document, name)?.name;
  const place = recognition.ranking.findIndex((item) => item.intent === line.intent);
  return {
    text: line.text,
    expected: line.intent,
    predicted: recognition.ranking[0]?.intent ?? null,
    confidence: recognition.confidence,
    decision: recognition.decision,
    top: recognition.ranking.slice(0, MOST_CANDIDATES),
    place: place < 0 ? null : place + 1,
    expectedSlots:
      line.slots?.map((slot) => {
        const entity = entityOf(slot.slot);
        return { ...slot, ...(entity !== undefined && { entity }) };
      }) ?? null,
    slots: recognition.slots,
    ...(line.style === undefined ? {} : { style: line.style }),
    ...(line.tags === undefined ? {} : { tags: line.tags }),
    ...(recognition.failed.length > 0 ? { unread: recognition.failed } : {}),
    ...(taught ? { taught } : {}),
  };
}

/**
 * Reads a test line.
 * @param vectors of the texts that the recogniser asks for to read the line
 * @param taught of {@link taughtMessages}
 */
export function readLine(
  recogniser: Recogniser,
  line: TestLine,
  vectors: Vectors,
  { now, taught }: { now: string; taught: ReadonlySet<string> },
): LineResult {
  const recognition = recogniser.recognise(line.text, vectors, line.now ?? now);
  return lineResult(recogniser, line, recognition, { taught: taught.has(foldMessage(line.text)) });
}

/** Reads test lines; their texts are encoded together. @param taught of {@link taughtMessages} */
export async function readLines(
  recogniser: Recogniser,
  lines: readonly TestLine[],
  { now, taught, encode }: { now: string; taught: ReadonlySet<string>; encode: Encode },
): Promise<LineResult[]> {
  const vectors = await encode(lines.flatMap(({ text }) => recogniser.textsToEncode(text)));
  return lines.map((line) => readLine(recogniser, line, vectors, { now, taught }));
}

/** Whether a line is in the figures: it says what is expected, and the bot was not taught it. */
export const isCounted = ({ expected, taught }: LineResult): boolean => expected !== undefined && !taught;

/** Whether a line came out right: the first intent in scope; not matched out of scope. */
export function isRight(result: LineResult): boolean {
  return result.expected === null ? result.decision === 'none' : result.predicted === result.expected;
}

/** A line's words for an error: accepted and wrong is worst. */
export type Verdict = 'right' | 'wrong and accepted' | 'wrong and asked about' | 'not matched';

export function verdict(result: LineResult): Verdict {
  if (isRight(result)) return result.expected !== null && result.decision === 'none' ? 'not matched' : 'right';
  if (result.decision === 'accept') return 'wrong and accepted';
  return result.decision === 'ask' ? 'wrong and asked about' : 'not matched';
}

/** The accuracy by each tag of the messages, those of the same tag together. */
const tagFigures = (inScope: readonly LineResult[]): NonNullable<Evaluation['tags']> =>
  TAGS.flatMap((tag) => {
    const values = [...new Set(inScope.flatMap(({ tags }) => tags?.[tag] ?? []))];
    return values.map((value) => {
      const own = inScope.filter(({ tags }) => tags?.[tag] === value);
      return { tag, value, lines: own.length, accuracy: mean(own.map((result) => (isRight(result) ? 1 : 0))) };
    });
  });

function gateMeasure(results: readonly LineResult[]): GateMeasure {
  const count = (decision: Decision) => results.filter((result) => result.decision === decision).length;
  const inScope = results.filter((result) => result.expected !== null);
  const outOfScope = results.filter((result) => result.expected === null);
  const accepted = results.filter((result) => result.decision === 'accept');
  const shareOf = (list: readonly LineResult[], of: (result: LineResult) => boolean) =>
    mean(list.map((result) => (of(result) ? 1 : 0)));
  return {
    accepted: accepted.length,
    asked: count('ask'),
    none: count('none'),
    acceptedPrecision: shareOf(accepted, (result) => result.predicted === result.expected),
    acceptedInScope: shareOf(inScope, (result) => result.decision === 'accept'),
    outOfScopeRecall: shareOf(outOfScope, (result) => result.decision === 'none'),
  };
}

/** What a line counts as in the confusion matrix: out of scope it is right where nothing is made of it. */
const readAs = ({ expected, predicted, decision }: LineResult): string | null =>
  expected === null && decision === 'none' ? null : predicted;

/**
 * Measures a test run. Lines that name no intent, and lines that were also taught, are left out.
 * @param intents of the bot, in its order
 */
export function measure(all: readonly LineResult[], intents: readonly string[]): Evaluation {
  const judged = all.filter((result) => result.expected !== undefined);
  const results = judged.filter((result) => !result.taught);
  const inScope = results.filter((result) => result.expected !== null);
  const outOfScope = results.filter((result) => result.expected === null);
  const outcomes = inScope.map(({ expected, predicted }) => ({ expected: expected ?? null, predicted }));
  const everything = results.map((result) => ({ expected: result.expected ?? null, predicted: readAs(result) }));
  const labels = [...new Set([...intents, ...outcomes.flatMap(({ expected }) => expected ?? [])])];
  const classes = classMeasures(everything, labels);
  const tested = classes.filter(({ support }) => support > 0);
  const confusion = confusionMatrix(everything, outOfScope.length > 0 ? [...labels, OUT_OF_SCOPE] : labels);
  const calibration = calibrationOf(
    inScope.map((result) => ({ confidence: result.confidence, correct: isRight(result) })),
  );
  const overall = calibrationOf(
    results.map((result) => ({ confidence: result.confidence, correct: result.predicted === result.expected })),
  );
  const slots = slotFigures(inScope);
  const styles = [...new Set(inScope.flatMap(({ style }) => style ?? []))];
  return {
    lines: results.length,
    inScope: inScope.length,
    outOfScope: outOfScope.length,
    accuracy: accuracy(outcomes),
    topThree: mean(inScope.map(({ place }) => (place !== null && place <= 3 ? 1 : 0))),
    macro: {
      precision: mean(tested.map(({ precision }) => precision)),
      recall: mean(tested.map(({ recall }) => recall)),
      f1: mean(tested.map(({ f1 }) => f1)),
    },
    weightedF1: weightedF1(classes),
    kappa: kappa(confusion),
    auroc: areaUnderRoc(
      inScope.map(({ confidence }) => confidence),
      outOfScope.map(({ confidence }) => confidence),
    ),
    calibrationError: calibration.error,
    calibration: calibration.bins,
    calibrationErrorOverall: overall.error,
    taught: judged.length - results.length,
    gate: gateMeasure(results),
    slotF1: slots.exact,
    slots,
    tags: tagFigures(inScope),
    intents: classes,
    confusion: together(confusion),
    styles: styles.map((style) => {
      const own = inScope.filter((result) => result.style === style);
      return { style, lines: own.length, accuracy: mean(own.map((result) => (isRight(result) ? 1 : 0))) };
    }),
  };
}

/** Held-out figures of the utterances themselves, from cross-validation. */
export interface HeldOutMeasure {
  accuracy: number | null;
  /** Where the accuracy may well lie (95 %). */
  interval: ShareInterval | null;
  intents: ClassMeasure[];
}

/** Accuracy and per-intent recall of predictions by models that had not learned from the utterance. */
export function measureHeldOut(
  predictions: readonly { intent: string; predicted: string | null }[],
  intents: readonly string[],
): HeldOutMeasure {
  const outcomes = predictions.map(({ intent, predicted }) => ({ expected: intent, predicted }));
  const right = outcomes.filter(({ expected, predicted }) => expected === predicted).length;
  return {
    accuracy: accuracy(outcomes),
    interval: shareInterval(right, outcomes.length),
    intents: classMeasures(outcomes, intents),
  };
}
