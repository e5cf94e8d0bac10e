import { sentencesOf } from '../text/sentences.js';
import { tokenise, tokenisePart, type Token } from '../text/tokens.js';
import type { Mending } from '../recognise/reading.js';
import type { Language } from '../language/language.js';
import type { Steering } from './steering.js';

/** A stretch of a message that says one thing. Offsets are UTF-16 code units of the message. */
export interface Clause {
  start: number;
  end: number;
  text: string;
  /** Its words as phrases are matched on them; a question mark at the end stays. */
  folded: string;
  /** What it does to the conversation itself; `null` where it speaks of the matter. */
  steering: Steering | null;
  question: boolean;
  request: boolean;
}

/** A message cut into what steers the conversation and what speaks of the matter. */
export interface Hearing {
  /** As much of the message as is read. */
  text: string;
  language: Language;
  clauses: readonly Clause[];
  /** The clauses that speak of the matter. */
  content: readonly Clause[];
  /** The whole message, folded. */
  folded: string;
  says(...steering: Steering[]): boolean;
  /** Whether the message does nothing but steer. */
  onlySteers: boolean;
}

const BORDER = /,\s+|\s[-–—]+\s|[.!?;…]+(?=\s|$)|\n+/gu;
const MOST_CLAUSES = 40;
/** Phrases that steer are cut off one stretch, at most: nobody says more of them without a mark between. */
const MOST_CUTS = 12;

interface Stretch {
  start: number;
  end: number;
}

/** The message cut at punctuation. */
function stretches(text: string): Stretch[] {
  const found: Stretch[] = [];
  let start = 0;
  for (const match of text.matchAll(BORDER)) {
    const mark = /^[.!?;…]/.test(match[0]) ? match[0].length : 0;
    found.push({ start, end: match.index + mark });
    start = match.index + match[0].length;
    if (found.length === MOST_CLAUSES - 1) break;
  }
  found.push({ start, end: text.length });
  return found.filter(({ start: from, end }) => /[\p{L}\p{N}]/u.test(text.slice(from, end)));
}

const foldWords = (tokens: readonly Token[]): string => tokens.map(({ mended }) => mended).join(' ');

/** What is known of a message when it is cut. */
export interface Known {
  /** Misspelt words with what they are read as. */
  mendings?: readonly Mending[];
  /** Values in it: no word of several that make one steers. */
  values?: readonly Stretch[];
  /** Values of what was asked for: a clause that is such a value does not steer ("evening" is then no greeting). */
  answers?: readonly Stretch[];
  /** Ways of steering that mean nothing now. */
  idle?: readonly Steering[];
}

/** What stands between two marks. */
interface Cutting extends Required<Omit<Known, 'mendings'>> {
  language: Language;
  asked: boolean;
}

/** A clause as it is cut off: its tokens, what it does, where it ends, and whether a question mark ends it. */
interface Cut {
  tokens: readonly Token[];
  steering: Steering | null;
  end?: number;
  asked?: boolean;
}

/** Whether words are a value that was asked for, and fillers. */
function answersOnly(own: readonly Token[], answers: readonly Stretch[], { clauses }: Language): boolean {
  const rest = own.filter((token) => !answers.some(({ start, end }) => token.start >= start && token.end <= end));
  return rest.length < own.length && (rest.length === 0 || clauses.isFiller(foldWords(rest)));
}

/** Cuts steering words off both ends of what stands between two marks, until the rest says something of its own. */
function cutStretch(tokens: readonly Token[], end: number, { language, asked, values, answers, idle }: Cutting): Cut[] {
  const { clauses } = language;
  const isValue = ({ start, end: last }: Token) =>
    values.some((value) => value.start <= start && last <= value.end && value.end - value.start > last - start);
  const before: Cut[] = [];
  const after: Cut[] = [];
  let own = tokens;
  while (own.length > 0 && before.length + after.length < MOST_CUTS) {
    const folded = foldWords(own) + (asked ? '?' : '');
    const whole = clauses.steeringOf(folded);
    if (whole !== null && !own.some(isValue)) {
      const steers = !answersOnly(own, answers, language) && !idle.includes(whole);
      return [...before, { tokens: own, steering: steers ? whole : null, asked }, ...after];
    }
    const head = isValue(own[0]!) ? null : clauses.steeringHead(folded);
    if (head) {
      const count = countWords(own, head.words);
      before.push({ tokens: own.slice(0, count), steering: head.steering });
      own = own.slice(count);
      continue;
    }
    const tail = isValue(own.at(-1)!) ? null : clauses.steeringTail(folded.replace(/\?$/, ''));
    if (!tail) break;
    const count = own.length - tail.words;
    after.unshift({ tokens: own.slice(count), steering: tail.steering });
    own = own.slice(0, count);
  }
  const rest: Cut = { tokens: own, steering: null, asked, ...(after.length > 0 ? {} : { end }) };
  return [...before, rest, ...after];
}

function clauseOf(
  text: string,
  { tokens, steering, end = tokens.at(-1)!.end, asked = false }: Cut,
  { clauses }: Language,
): Clause {
  const start = tokens[0]!.start;
  const folded = foldWords(tokens) + (asked ? '?' : '');
  return {
    start,
    end,
    text: text.slice(start, end),
    folded,
    steering,
    question: steering === null && clauses.asksQuestion(folded),
    request: steering === null && clauses.requests(folded),
  };
}

const ASKED = /\?\s*$/;

/** Cuts a message into clauses. */
export function hear(whole: string, language: Language, known: Known = {}): Hearing {
  const { mendings = [], values = [], answers = [], idle = [] } = known;
  const { text, tokens } = tokenisePart(whole);
  const mended = new Map(mendings.map(({ start, to }) => [start, to]));
  for (const token of tokens) token.mended = mended.get(token.start) ?? token.norm;
  const clauses = stretches(text)
    .flatMap(({ start, end }) => {
      const own = tokens.filter((token) => token.start >= start && token.end <= end);
      return cutStretch(own, end, { language, asked: ASKED.test(text.slice(start, end)), values, answers, idle });
    })
    .filter((cut) => cut.tokens.length > 0)
    .map((cut) => clauseOf(text, cut, language));
  const content = clauses.filter(({ steering }) => steering === null);
  return {
    text,
    language,
    clauses,
    content,
    folded: foldWords(tokens) + (ASKED.test(text) ? '?' : ''),
    says: (...wanted) => clauses.some(({ steering }) => steering !== null && wanted.includes(steering)),
    onlySteers: clauses.length > 0 && content.length === 0,
  };
}

/** How many tokens hold so many words; a mended token may hold two. */
function countWords(tokens: readonly Token[], words: number): number {
  let [count, seen] = [0, 0];
  while (count < tokens.length && seen < words) seen += tokens[count++]!.mended.split(' ').length;
  return count;
}

/** Some of a message's clauses that follow each other, read as one. */
export interface Part extends Stretch {
  text: string;
  folded: string;
  question: boolean;
  request: boolean;
}

const MOST_PARTS = 5;

/** What a message says of the matter, cut where one wish may end and another begin. */
export function partsOf(hearing: Hearing): Part[] {
  const parts: Part[] = [];
  const { clauses, naming } = hearing.language;
  const sentences = sentencesOf(hearing.text);
  const sentenceOf = (offset: number) => sentences.findIndex(({ start, end }) => offset >= start && offset < end);
  let last = null as { part: Part; sentence: number } | null;
  for (const clause of hearing.content) {
    const cuts = [...clause.text.matchAll(clauses.joint)].map(({ index, 0: joint }) => ({
      end: index,
      next: index + joint.length,
    }));
    let from = 0;
    for (const { end, next } of [...cuts, { end: clause.text.length, next: clause.text.length }]) {
      const piece = clause.text.slice(from, end);
      const lead = clauses.leading.exec(piece)?.[0].length ?? 0;
      const start = clause.start + from + lead;
      const text = piece.slice(lead);
      from = next;
      if (!/[\p{L}\p{N}]/u.test(text)) continue;
      const folded =
        tokenise(text)
          .tokens.map(({ norm }) => norm)
          .join(' ') + (/\?\s*$/.test(text) ? '?' : '');
      const part: Part = {
        start,
        end: start + text.length,
        text,
        folded,
        question: clauses.asksQuestion(folded),
        request: clauses.requests(folded) || naming.isVerb(folded.split(' ')[0]!),
      };
      const sentence = sentenceOf(start);
      // A comma alone parts no wishes, unless what follows asks for something.
      const goesOn =
        last?.sentence === sentence &&
        !part.question &&
        !part.request &&
        lead === 0 &&
        !isCut(cuts, start - clause.start);
      if (goesOn && last) {
        last.part.end = part.end;
        last.part.text = hearing.text.slice(last.part.start, part.end);
        last.part.folded = `${last.part.folded} ${folded}`;
      } else {
        parts.push(part);
        last = { part, sentence };
      }
    }
  }
  return parts.length > MOST_PARTS ? [] : parts;
}

const isCut = (cuts: readonly { next: number }[], offset: number): boolean => cuts.some(({ next }) => next === offset);
