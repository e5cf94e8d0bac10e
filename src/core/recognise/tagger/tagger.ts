import { findEntity, type BotDocument, type EntityKind, type Form } from '../../bot/document.js';
import type { Mark, MarkedText } from '../../bot/marking.js';
import { languageOf } from '../../language/index.js';
import type { Language } from '../../language/language.js';
import { sentencesOf } from '../../text/sentences.js';
import { tokenAfter, tokensWithin, type Token, type TokenisedText } from '../../text/tokens.js';
import type { Candidate } from '../finders/finder.js';
import type { Vectors } from '../../encode/encoder.js';
import { openChain, trainChain, type ChainModel, type LabelledRows } from './crf.js';
import { gatherTaught, lookedAt, nearestTaught, viewsOf, type TaughtWords, type WordViews } from './wordViews.js';
import { putHeld, type Named } from '../../text/named.js';

/** A tagger of one form's slots. Plain data. */
export interface TaggerModel {
  /** The slots it marks; their labels are 1 + 2 × place for the first word and 2 + 2 × place for those after it. */
  slots: string[];
  chain: ChainModel;
  /** The words of values that it learned from: what a new word is like is told by them. */
  taught: TaughtWords;
}

/** Words that the tagger takes for a slot. Offsets are UTF-16 code units of the original text. */
export interface TaggedSpan {
  slot: string;
  start: number;
  end: number;
  /** How sure it is of the words on average, 0..1. */
  confidence: number;
  /** A word of it that is near to one taught for the slot, where there is one. */
  like: () => { word: string; near: string } | null;
}

/** What the tagger makes of a message. */
export interface Tagging {
  spans: TaggedSpan[];
  /** How likely the words between two offsets are this slot's, 0..1. */
  likelihood(slot: string, start: number, end: number): number;
}

/** Kinds of value that finders cannot find, or not all of them: any words may be one. */
const LEARNED_KINDS: readonly EntityKind[] = ['free', 'person', 'address'];
/** The label of a word that belongs to no value. */
const OUTSIDE = 0;
const FEWEST_MARKS = 3;
/** Marked utterances that a tagger learns from, an even share of each intent's; more would teach it little. */
const MOST_MARKED = 300;
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

/** How the sentence is built around a word. */
function classFeatures(tokens: readonly Token[], at: number, { classOf }: Language): string[] {
  const own = (place: number): string =>
    place < 0 ? '<' : place < tokens.length ? classOf(tokens[place]!.mended) : '>';
  const [before, here, after] = [own(at - 1), own(at), own(at + 1)];
  return [
    `k=${here}`,
    `kp=${before}`,
    `kn=${after}`,
    `kpk=${before} ${here}`,
    `kkn=${here} ${after}`,
    `kpkn=${before} ${here} ${after}`,
    `kqp=${own(at - 2)} ${before}`,
    `knm=${after} ${own(at + 2)}`,
  ];
}

/** Which candidate of which entity each word lies in, and whether it begins there. */
function candidateTags(tokens: readonly Token[], candidates: readonly Candidate[]): string[] {
  const tags = tokens.map((): string[] => []);
  for (const { entity, start, end } of candidates) {
    for (let at = tokenAfter(tokens, start); at < tokens.length && tokens[at]!.end <= end; at++)
      if (tokens[at]!.start >= start) tags[at]!.push(`${entity}${tokens[at]!.start === start ? '[' : '-'}`);
  }
  return tags.map((own) => own.sort().join(' '));
}

/**
 * The features of every word: itself and its neighbours, endings, shapes, signs before it, the values that the finders
 * see there, and how the sentence is built.
 * @param hidden words whose spelling is withheld, so that what stands around them is learned
 */
function featureRows(
  { text, tokens }: TokenisedText,
  candidates: readonly Candidate[],
  language: Language,
  hidden: (at: number) => boolean = () => false,
): number[][] {
  const words = tokens.map(({ mended }, at) => (hidden(at) ? HIDDEN : mended));
  const tags = candidateTags(tokens, candidates);
  const word = (at: number): string => (at < 0 ? '<' : (words[at] ?? '>'));
  const gapBefore = (at: number): string =>
    at === 0 ? '<' : text.slice(tokens[at - 1]!.end, tokens[at]!.start).trim();
  return tokens.map((token, at) => {
    const rare = (language.dictionary.get(token.mended) ?? 99) > 35;
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
      ...classFeatures(tokens, at, language),
    ].map(hash);
  });
}

/** Words are tagged sentence by sentence, since no value goes beyond one. */
function bySentence({ text, tokens }: TokenisedText): TokenisedText[] {
  const sentences = sentencesOf(text).map(({ start, end }) => ({
    text,
    tokens: tokensWithin(tokens, start, end),
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

/** What a training leaves for the next: taggers with what each learned from, by form. */
export type TaggerMemory = Map<string, { learned: string; model: TaggerModel }>;

/** Reads a text with the finders of the bot, as messages are read. */
export type ReadForTagger = (text: string) => { message: TokenisedText; candidates: Candidate[] };

/** The utterances that a form's tagger learns from. */
function markedFor(document: BotDocument, form: Form): MarkedText[] {
  const filling = document.intents.filter((intent) => intent.form === form.name);
  const share = Math.ceil(MOST_MARKED / filling.length);
  return filling.flatMap(({ utterances }) => utterances.slice(0, share));
}

/** What the encoder is to look at for the taggers of a bot, each once. */
export function textsForTaggers(document: BotDocument, read: (text: string) => TokenisedText): string[] {
  const marked = document.forms
    .filter((form) => needsTagger(document, form))
    .flatMap((form) => markedFor(document, form));
  return [...new Set(marked.map(({ text }) => lookedAt(read(text))))];
}

/** A sentence that a tagger learns from. */
interface MarkedSentence {
  sentence: TokenisedText;
  candidates: readonly Candidate[];
  labels: number[];
  views: WordViews;
}

/** Trains a tagger on the marked utterances of the intents that fill a form; `null` where too few are marked. */
function trainTagger(
  document: BotDocument,
  form: Form,
  { readText, vectors }: TaggerLesson,
  memory: TaggerMemory,
): TaggerModel | null {
  const marked = markedFor(document, form);
  const slots = form.slots
    .map(({ name }) => name)
    .filter((name) => marked.some(({ marks }) => marks.some(({ slot }) => slot === name)));
  if (marked.reduce((sum, { marks }) => sum + marks.length, 0) < FEWEST_MARKS) return null;
  const language = languageOf(document);
  const cut = marked.flatMap(({ text, marks }): MarkedSentence[] => {
    const { message: whole, candidates } = readText(text);
    const views = viewsOf(whole, vectors);
    return bySentence(whole).map((sentence) => ({
      sentence,
      candidates,
      labels: labelsOf(sentence.tokens, marks, slots),
      views,
    }));
  });
  const sentences = cut.flatMap(({ sentence, candidates, labels, views }): LabelledRows[] => {
    const seen = sentence.tokens.map((token) => views.get(token) ?? null);
    const plain = { rows: featureRows(sentence, candidates, language), views: seen, labels };
    // Once more without the values' own words, so that values never seen are found by what stands around them.
    return labels.every((label) => label === OUTSIDE)
      ? [plain]
      : [
          plain,
          {
            rows: featureRows(sentence, candidates, language, (at) => labels[at] !== OUTSIDE),
            views: seen,
            labels,
          },
        ];
  });
  // What the encoder sees follows from the text.
  const learned = JSON.stringify([
    slots,
    marked.map(({ text }) => text),
    sentences.map(({ rows, labels, views }) => [rows, labels, views.map((view) => view !== null)]),
  ]);
  const known = memory.get(form.name);
  if (known?.learned === learned) return known.model;
  const model = {
    slots,
    chain: trainChain(sentences, 1 + 2 * slots.length, mayFollow),
    taught: gatherTaught(cut.flatMap(wordsOfValues), language),
  };
  memory.set(form.name, { learned, model });
  return model;
}

/** The words of values in a sentence, with the place of their slot. */
const wordsOfValues = ({ sentence, labels, views }: MarkedSentence) =>
  sentence.tokens.flatMap((token, at) =>
    labels[at] === OUTSIDE
      ? []
      : [{ word: token.mended, slot: Math.ceil(labels[at]! / 2) - 1, view: views.get(token) ?? null }],
  );

/** What taggers are taught with. */
export interface TaggerLesson {
  readText: ReadForTagger;
  /** Of {@link textsForTaggers}; words that were not looked at are learned by their letters alone. */
  vectors: Vectors;
}

/**
 * Trains the taggers that a bot's forms need, by form.
 * @param memory of the training before
 */
export function trainTaggers(
  document: BotDocument,
  lesson: TaggerLesson,
  memory: TaggerMemory = new Map(),
): Named<TaggerModel> {
  const taggers: Named<TaggerModel> = {};
  for (const form of document.forms) {
    if (!needsTagger(document, form)) continue;
    const tagger = trainTagger(document, form, lesson, memory);
    if (tagger) putHeld(taggers, form.name, tagger);
  }
  return taggers;
}

/** The words, from one up to another, that labels give to a slot. */
function stretchesOf(labels: readonly number[]): { slot: number; from: number; to: number }[] {
  const stretches: { slot: number; from: number; to: number }[] = [];
  for (let from = 0; from < labels.length;) {
    const label = labels[from]!;
    const slot = Math.ceil(label / 2) - 1;
    let to = from + 1;
    while (label !== OUTSIDE && labels[to] === 2 + 2 * slot) to++;
    if (label !== OUTSIDE) stretches.push({ slot, from, to });
    from = to;
  }
  return stretches;
}

/** Marks a message. @param vectors with what the encoder saw of it; without, words are read by their letters alone */
export type Tag = (message: TokenisedText, candidates: readonly Candidate[], vectors: Vectors) => Tagging;

/** Makes a tagger ready to mark messages. */
export function openTagger({ slots, chain, taught }: TaggerModel, language: Language): Tag {
  const labeller = openChain(chain);
  const size = chain.size;
  return (message, candidates, vectors) => {
    const sentences = bySentence(message);
    const views = viewsOf(message, vectors);
    const tokens = sentences.flatMap((sentence) => sentence.tokens);
    const tagged = sentences.map((sentence) =>
      labeller.label(
        featureRows(sentence, candidates, language),
        sentence.tokens.map((token) => views.get(token) ?? null),
      ),
    );
    const labels = tagged.flatMap((own) => own.labels);
    const shares = tagged.flatMap((own) => [...own.shares]);
    const share = (at: number, slot: number): number =>
      shares[at * size + 1 + 2 * slot]! + shares[at * size + 2 + 2 * slot]!;
    const mean = (slot: number, from: number, to: number): number => {
      let sum = 0;
      for (let at = from; at < to; at++) sum += share(at, slot);
      return to > from ? sum / (to - from) : 0;
    };
    const spans = stretchesOf(labels).flatMap(({ slot, from, to }): TaggedSpan[] => {
      let [first, last] = [from, to - 1];
      while (first <= last && language.isEdge(tokens[first]!.mended)) first++;
      while (last >= first && language.isEdge(tokens[last]!.mended)) last--;
      if (first > last) return [];
      const words = tokens.slice(first, last + 1).map((token) => ({ word: token.mended, view: views.get(token) }));
      return [
        {
          slot: slots[slot]!,
          start: tokens[first]!.start,
          end: tokens[last]!.end,
          confidence: mean(slot, first, last + 1),
          like: () => nearestTaught(taught, words, slot, language),
        },
      ];
    });
    return {
      spans,
      likelihood(name, start, end) {
        const slot = slots.indexOf(name);
        const last = tokenAfter(tokens, end - 1);
        return slot < 0 ? 0 : mean(slot, tokenAfter(tokens, start), Math.min(last + 1, tokens.length));
      },
    };
  };
}
