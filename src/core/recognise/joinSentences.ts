import { softmaxRows } from './logistic.js';

/** How much the sentences of a long message count beside the message as a whole. */
const SENTENCE_SHARE = 0.1;
/** How much more, at most, where one of them is sure of an intent and the others lie outside: a story around it. */
const STORY_SHARE = 0.8;
/** How fast that falls where the one is less sure. */
const SURE = 4;
/** Of two sentences the one that seems to lie outside often says what the other means. */
const STORY_SENTENCES = 3;
const LEAST_PROBABILITY = 1e-9;

/** How much the sentences count. @param within how likely each lies within the bot @param sure how sure each is of an intent */
function shareOfSentences(within: readonly number[], sure: readonly number[]): number {
  if (within.length < STORY_SENTENCES) return SENTENCE_SHARE;
  const surest = sure.indexOf(Math.max(...sure));
  const others = within.filter((_, at) => at !== surest);
  return SENTENCE_SHARE + STORY_SHARE * sure[surest]! ** SURE * (1 - Math.max(...others));
}

/**
 * Joins what the whole message and its sentences say: the geometric mean of the probabilities, in which a sentence
 * counts the more, the more it asks for something and the likelier it lies within the bot.
 * @param parts probabilities of each sentence, the last that of lying outside
 */
export function joinSentences(
  whole: Float64Array,
  parts: readonly { probabilities: Float64Array; weight: number }[],
): Float64Array {
  const within = parts.map(({ probabilities }) => 1 - probabilities.at(-1)!);
  const weights = parts.map(({ weight }, at) => weight * within[at]! ** 2 + LEAST_PROBABILITY);
  const sure = parts.map(({ probabilities }) => Math.max(...probabilities.subarray(0, -1)));
  const share = shareOfSentences(within, sure);
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const log = (probability: number) => Math.log(Math.max(LEAST_PROBABILITY, probability));
  const joined = whole.map(
    (own, column) =>
      (1 - share) * log(own) +
      parts.reduce(
        (sum, { probabilities }, at) => sum + (share * weights[at]! * log(probabilities[column]!)) / total,
        0,
      ),
  );
  softmaxRows(joined, joined.length);
  return joined;
}
