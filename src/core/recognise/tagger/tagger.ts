import { findEntity, type BotDocument, type EntityKind, type Form } from '../../bot/document.js';
import { readMarking, type Mark } from '../../bot/marking.js';
import { DICTIONARY } from '../../text/dictionary.js';
import { sentencesOf } from '../../text/sentences.js';
import type { Token, TokenisedText } from '../../text/tokens.js';
import type { Candidate } from '../finders/finder.js';
import { openChain, trainChain, type ChainModel, type LabelledRows } from './crf.js';

/** A tagger of one form's slots. Plain data. */
export interface TaggerModel {
  /** The slots it marks; their labels are 1 + 2 × place for the first word and 2 + 2 × place for those after it. */
  slots: string[];
  chain: ChainModel;
}

/** Words that the tagger takes for a slot. Offsets are UTF-16 code units of the original text. */
export interface TaggedSpan {
  slot: string;
  start: number;
  end: number;
  /** How sure it is of the words on average, 0..1. */
  confidence: number;
}

/** What the tagger makes of a message. */
export interface Tagging {
  spans: TaggedSpan[];
  /** How likely the words between two offsets are this slot's, 0..1. */
  likelihood(slot: string, start: number, end: number): number;
}

/** Kinds of value that finders cannot find, or not all of them: any words may be one. */
const LEARNED_KINDS: readonly EntityKind[] = ['free', 'person', 'address'];
const FEWEST_MARKS = 3;
/** Marked utterances that a tagger learns from, an even share of each intent's; more would teach it little. */
const MOST_MARKED = 300;
const OUTSIDE = 0;
/** How many words before a value are taken together, whatever their order: they tell what it is for. */
const NEAR = 4;
const HIDDEN = '*';

/** FNV-1a (Fowler, Noll and Vo, 1991). */
function hash(feature: string): number {
  let value = 0x811c9dc5;
  for (let at = 0; at < feature.length; at++) value = Math.imul(value ^ feature.charCodeAt(at), 0x01000193);
  return value >>> 0;
}

function shapeOf(text: string): string {
  if (/^\p{Lu}+$/u.test(text)) return text.length === 1 ? 'X' : 'XX';
  if (/^\p{Lu}/u.test(text)) return 'Xx';
  return /^\p{N}/u.test(text) ? '9' : 'x';
}

/** Which candidate of which entity each word lies in, and whether it begins there. */
function candidateTags(tokens: readonly Token[], candidates: readonly Candidate[]): string[] {
  return tokens.map((token) =>
    candidates
      .filter(({ start, end }) => token.start >= start && token.end <= end)
      .map(({ entity, start }) => `${entity}${token.start === start ? '[' : '-'}`)
      .sort()
      .join(' '),
  );
}

/**
 * The features of every word: itself and its neighbours, endings, shapes, signs before it, and the values that the
 * finders see there.
 * @param hidden words whose spelling is withheld, so that what stands around them is learned
 */
function featureRows(
  { text, tokens }: TokenisedText,
  candidates: readonly Candidate[],
  hidden: (at: number) => boolean = () => false,
): number[][] {
  const words = tokens.map(({ read }, at) => (hidden(at) ? HIDDEN : read));
  const tags = candidateTags(tokens, candidates);
  const word = (at: number): string => (at < 0 ? '<' : (words[at] ?? '>'));
  const gapBefore = (at: number): string =>
    at === 0 ? '<' : text.slice(tokens[at - 1]!.end, tokens[at]!.start).trim();
  return tokens.map((token, at) => {
    const rare = (DICTIONARY.get(token.read) ?? 99) > 35;
    const own =
      word(at) === HIDDEN ? [] : [`w=${word(at)}`, `e=${word(at).slice(-3)}`, `ww=${word(at - 1)} ${word(at)}`];
    return [
      'any',
      ...own,
      `p=${word(at - 1)}`,
      `pp=${word(at - 2)} ${word(at - 1)}`,
      `q=${word(at - 2)}`,
      `n=${word(at + 1)}`,
      `nn=${word(at + 1)} ${word(at + 2)}`,
      `s=${shapeOf(token.text)}`,
      `s=${shapeOf(token.text)} p=${word(at - 1)}`,
      `r=${rare}`,
      `g=${gapBefore(at)}`,
      `h=${at + 1 < tokens.length ? gapBefore(at + 1) : '>'}`,
      `c=${tags[at]!}`,
      `c=${tags[at]!} p=${word(at - 1)}`,
      `cp=${tags[at - 1] ?? '<'}`,
      `cn=${tags[at + 1] ?? '>'}`,
      ...(tags[at] === '' ? [] : new Set(words.slice(Math.max(0, at - NEAR), at).map((near) => `b=${near}`))),
      ...(at === 0 ? ['first'] : []),
      ...(at === tokens.length - 1 ? ['last'] : []),
    ].map(hash);
  });
}

/** Words are tagged sentence by sentence, since no value goes beyond one. */
function bySentence({ text, tokens }: TokenisedText): TokenisedText[] {
  const sentences = sentencesOf(text).map(({ start, end }) => ({
    text,
    tokens: tokens.filter((token) => token.start >= start && token.end <= end),
  }));
  return sentences.filter((sentence) => sentence.tokens.length > 0);
}

/** The label of each word; the first word of each stretch is told apart from those after it. */
function labelsOf(tokens: readonly Token[], marks: readonly Mark[], slots: readonly string[]): number[] {
  return tokens.map((token) => {
    const mark = marks.find(({ start, end }) => token.start >= start && token.end <= end);
    const slot = mark ? slots.indexOf(mark.slot) : -1;
    if (slot < 0) return OUTSIDE;
    const first = tokens.find(({ start }) => start >= mark!.start) === token;
    return 1 + 2 * slot + (first ? 0 : 1);
  });
}

/** A word within a stretch follows the first or another word of the same. */
const mayFollow = (before: number, label: number): boolean =>
  label === OUTSIDE || label % 2 === 1 || before === label || before === label - 1;

/** Whether a form has slots that only the words around them tell: free words, people, addresses, or several of an entity. */
function needsTagger(document: BotDocument, form: Form): boolean {
  const learned = form.slots.some(({ entity }) => LEARNED_KINDS.includes(findEntity(document, entity)?.kind ?? 'list'));
  return learned || new Set(form.slots.map(({ entity }) => entity)).size < form.slots.length;
}

/** The taggers of a training with what each learned from, by form: one that would learn the same is not trained again. */
export type TaggerMemory = Map<string, { learned: string; model: TaggerModel }>;

/** Reads a text with the finders of the bot, as messages are read. */
export type ReadForTagger = (text: string) => { read: TokenisedText; candidates: Candidate[] };

/** Trains a tagger on the marked utterances of the intents that fill a form; `null` where too few are marked. */
function trainTagger(
  document: BotDocument,
  form: Form,
  readText: ReadForTagger,
  memory: TaggerMemory,
): TaggerModel | null {
  const filling = document.intents.filter((intent) => intent.form === form.name);
  const share = Math.ceil(MOST_MARKED / filling.length);
  const marked = filling.flatMap(({ utterances }) =>
    utterances.slice(0, share).map((utterance) => readMarking(utterance)),
  );
  const slots = form.slots
    .map(({ name }) => name)
    .filter((name) => marked.some(({ marks }) => marks.some(({ slot }) => slot === name)));
  if (marked.reduce((sum, { marks }) => sum + marks.length, 0) < FEWEST_MARKS) return null;
  const sentences = marked.flatMap(({ text, marks }): LabelledRows[] => {
    const { read: whole, candidates } = readText(text);
    return bySentence(whole).flatMap((read) => {
      const labels = labelsOf(read.tokens, marks, slots);
      const plain = { rows: featureRows(read, candidates), labels };
      // Once more without the values' own words, so that values never seen are found by what stands around them.
      return labels.every((label) => label === OUTSIDE)
        ? [plain]
        : [plain, { rows: featureRows(read, candidates, (at) => labels[at] !== OUTSIDE), labels }];
    });
  });
  const learned = JSON.stringify([slots, sentences]);
  const known = memory.get(form.name);
  if (known?.learned === learned) return known.model;
  const model = { slots, chain: trainChain(sentences, 1 + 2 * slots.length, mayFollow) };
  memory.set(form.name, { learned, model });
  return model;
}

/** Trains the taggers that a bot's forms need, by form. @param memory of the training before */
export function trainTaggers(
  document: BotDocument,
  readText: ReadForTagger,
  memory: TaggerMemory = new Map(),
): Record<string, TaggerModel> {
  const taggers: Record<string, TaggerModel> = {};
  for (const form of document.forms) {
    if (!needsTagger(document, form)) continue;
    const tagger = trainTagger(document, form, readText, memory);
    if (tagger) taggers[form.name] = tagger;
  }
  return taggers;
}

/** Makes a tagger ready to mark messages. */
export function openTagger({
  slots,
  chain,
}: TaggerModel): (read: TokenisedText, candidates: readonly Candidate[]) => Tagging {
  const labeller = openChain(chain);
  const size = chain.size;
  return (read, candidates) => {
    const sentences = bySentence(read);
    const tokens = sentences.flatMap((sentence) => sentence.tokens);
    const tagged = sentences.map((sentence) => labeller.label(featureRows(sentence, candidates)));
    const labels = tagged.flatMap((own) => own.labels);
    const shares = tagged.flatMap((own) => [...own.shares]);
    const share = (at: number, slot: number): number =>
      shares[at * size + 1 + 2 * slot]! + shares[at * size + 2 + 2 * slot]!;
    const mean = (slot: number, from: number, to: number): number => {
      let sum = 0;
      for (let at = from; at < to; at++) sum += share(at, slot);
      return to > from ? sum / (to - from) : 0;
    };
    const spans: TaggedSpan[] = [];
    for (let at = 0; at < tokens.length;) {
      const label = labels[at]!;
      if (label === OUTSIDE) {
        at++;
        continue;
      }
      const slot = Math.floor((label - 1) / 2);
      let next = at + 1;
      while (next < tokens.length && labels[next] === 2 + 2 * slot) next++;
      spans.push({
        slot: slots[slot]!,
        start: tokens[at]!.start,
        end: tokens[next - 1]!.end,
        confidence: mean(slot, at, next),
      });
      at = next;
    }
    return {
      spans,
      likelihood(name, start, end) {
        const slot = slots.indexOf(name);
        const first = tokens.findIndex((token) => token.end > start);
        const after = tokens.findIndex((token) => token.start >= end);
        return slot < 0 || first < 0 ? 0 : mean(slot, first, after < 0 ? tokens.length : after);
      },
    };
  };
}
