import { findEntity, type BotDocument, type EntityKind, type Form } from '../../bot/document.js';
import type { Mark, MarkedText } from '../../bot/marking.js';
import { languageOf } from '../../language/index.js';
import type { Language } from '../../language/language.js';
import { sentencesOf } from '../../text/sentences.js';
import { tokenAfter, tokensWithin, type Token, type TokenisedText } from '../../text/tokens.js';
import type { Candidate } from '../finders/finder.js';
import type { Vectors } from '../../encode/encoder.js';
import { openChain, trainChain, type ChainModel, type LabelledRows } from './crf.js';
import { OUTSIDE, WordSimilarities, WordViews, type TaughtWord, type WordTable } from './wordViews.js';

/** A tagger of one form's slots. Plain data. */
export interface TaggerModel {
  /** The slots it marks; their labels are 1 + 2 × place for the first word and 2 + 2 × place for those after it. */
  slots: string[];
  chain: ChainModel;
  /** The words it learned from, in English: words like them are read like them. */
  taught: TaughtWord[];
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

/** How a word is seen. */
interface Sight {
  language: Language;
  /** As the encoder sees it. */
  view: (word: string) => readonly string[];
}

/**
 * The features of every word: itself and its neighbours, endings, shapes, signs before it, the values that the finders
 * see there, how the sentence is built, and how the encoder sees the word.
 * @param sight how a word is seen: in its language, and by the encoder
 * @param hidden words whose spelling is withheld, so that what stands around them is learned
 */
function featureRows(
  { text, tokens }: TokenisedText,
  candidates: readonly Candidate[],
  { language, view }: Sight,
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
      ...view(token.mended),
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

/** What a training leaves for the next: taggers with what each learned from, by form, and how like words are. */
export class TaggerMemory {
  readonly forms = new Map<string, { learned: string; model: TaggerModel }>();
  readonly similarities = new WordSimilarities();
}

/** Reads a text with the finders of the bot, as messages are read. */
export type ReadForTagger = (text: string) => { message: TokenisedText; candidates: Candidate[] };

/** The utterances that a form's tagger learns from. */
function markedFor(document: BotDocument, form: Form): MarkedText[] {
  const filling = document.intents.filter((intent) => intent.form === form.name);
  const share = Math.ceil(MOST_MARKED / filling.length);
  return filling.flatMap(({ utterances }) => utterances.slice(0, share));
}

/** The words whose vectors the taggers of a bot learn from, as they are read, each once. */
export function wordsForTaggers(document: BotDocument, read: (text: string) => TokenisedText): string[] {
  const texts = document.forms
    .filter((form) => needsTagger(document, form))
    .flatMap((form) => markedFor(document, form).map(({ text }) => text));
  return [...new Set(texts.flatMap((text) => read(text).tokens.map((token) => token.mended)))];
}

/** What each word was marked as, by word. */
function groupsOf(
  sentences: readonly { sentence: TokenisedText; labels: readonly number[] }[],
): Map<string, Set<number>> {
  const groups = new Map<string, Set<number>>();
  for (const { sentence, labels } of sentences) {
    sentence.tokens.forEach((token, at) => {
      const marked = groups.get(token.mended) ?? new Set();
      groups.set(token.mended, marked.add(Math.ceil(labels[at]! / 2)));
    });
  }
  return groups;
}

/** Trains a tagger on the marked utterances of the intents that fill a form; `null` where too few are marked. */
function trainTagger(
  document: BotDocument,
  form: Form,
  readText: ReadForTagger,
  memory: TaggerMemory,
): TaggerModel | null {
  const marked = markedFor(document, form);
  const slots = form.slots
    .map(({ name }) => name)
    .filter((name) => marked.some(({ marks }) => marks.some(({ slot }) => slot === name)));
  if (marked.reduce((sum, { marks }) => sum + marks.length, 0) < FEWEST_MARKS) return null;
  const cut = marked.flatMap(({ text, marks }) => {
    const { message: whole, candidates } = readText(text);
    return bySentence(whole).map((sentence) => ({
      sentence,
      candidates,
      labels: labelsOf(sentence.tokens, marks, slots),
    }));
  });
  const taught = memory.similarities.view(groupsOf(cut));
  const views = new Map(taught.map(({ word, view }) => [word, view]));
  const sight: Sight = { language: languageOf(document), view: (word) => views.get(word) ?? [] };
  const sentences = cut.flatMap(({ sentence, candidates, labels }): LabelledRows[] => {
    const plain = { rows: featureRows(sentence, candidates, sight), labels };
    // Once more without the values' own words, so that values never seen are found by what stands around them.
    return labels.every((label) => label === OUTSIDE)
      ? [plain]
      : [plain, { rows: featureRows(sentence, candidates, sight, (at) => labels[at] !== OUTSIDE), labels }];
  });
  const learned = JSON.stringify([slots, sentences]);
  const known = memory.forms.get(form.name);
  if (known?.learned === learned) return known.model;
  const model = { slots, chain: trainChain(sentences, 1 + 2 * slots.length, mayFollow), taught };
  memory.forms.set(form.name, { learned, model });
  return model;
}

/**
 * Trains the taggers that a bot's forms need, by form.
 * @param vectors of {@link wordsForTaggers}; words without one are learned by their letters alone
 * @param memory of the training before
 */
export function trainTaggers(
  document: BotDocument,
  readText: ReadForTagger,
  vectors: Vectors,
  memory: TaggerMemory = new TaggerMemory(),
): Record<string, TaggerModel> {
  memory.similarities.open(
    wordsForTaggers(document, (text) => readText(text).message),
    vectors,
  );
  const taggers: Record<string, TaggerModel> = {};
  for (const form of document.forms) {
    if (!needsTagger(document, form)) continue;
    const tagger = trainTagger(document, form, readText, memory);
    if (tagger) taggers[form.name] = tagger;
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

/** Marks a message. @param vectors of its words; those lacking are read by their letters alone */
export type Tag = (message: TokenisedText, candidates: readonly Candidate[], vectors: Vectors) => Tagging;

/** Makes a tagger ready to mark messages. @param table that has every word it was taught with */
export function openTagger({ slots, chain, taught }: TaggerModel, table: WordTable, language: Language): Tag {
  const labeller = openChain(chain);
  const views = new WordViews(taught, table, language);
  const size = chain.size;
  return (message, candidates, vectors) => {
    const sentences = bySentence(message);
    const tokens = sentences.flatMap((sentence) => sentence.tokens);
    const tagged = sentences.map((sentence) =>
      labeller.label(featureRows(sentence, candidates, { language, view: (word) => views.of(word, vectors) })),
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
      const words = tokens.slice(first, last + 1).map((token) => token.mended);
      return [
        {
          slot: slots[slot]!,
          start: tokens[first]!.start,
          end: tokens[last]!.end,
          confidence: mean(slot, first, last + 1),
          like: () => views.nearest(words, 1 + slot, vectors),
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
