import type { EntityKind } from '../bot/document.js';
import type { Steering } from '../converse/steering.js';
import type { Count, Word } from './word.js';

/** Steering words at one end of a clause that says something besides. */
interface SteeringWords {
  steering: Steering;
  words: number;
}

/** What clauses do and how they are joined. `folded` is of `foldPhrase`: small letters, no accents or apostrophes. */
export interface Clauses {
  /** What a whole clause does to the conversation; `null` where it says something else. */
  steeringOf: (folded: string) => Steering | null;
  /** A steering phrase that begins a clause, and one that ends it. */
  steeringHead: (folded: string) => SteeringWords | null;
  steeringTail: (folded: string) => SteeringWords | null;
  /** Whether some words say nothing of their own. */
  isFiller: (folded: string) => boolean;
  /** A question about something, no polite request nor the offer of a value. */
  asksQuestion: (folded: string) => boolean;
  /** Whether words ask for something to be done. */
  requests: (folded: string) => boolean;
  /** Whether words take back or alter something said before. */
  alters: (folded: string) => boolean;
  /** Where one wish may end and another begin; global. */
  joint: RegExp;
  /** Words that lead in to a wish and say nothing of it. */
  leading: RegExp;
  /** "I would like", wherever it stands. */
  wouldLike: (folded: string) => boolean;
  /** Whether words speak of another thing beside the one held. */
  adds: (folded: string) => boolean;
  /** Whether a clause, as it is written, goes on with what was said before. */
  beginsByAdding: (text: string) => boolean;
  /** Whether a question may offer a value: "do you have half past three". */
  offersValue: (folded: string) => boolean;
  /** "It is", "should be": words that put something right, whatever it is. */
  saysWhatIs: (folded: string) => boolean;
  /** Whether words tell that something is wrong. */
  denies: (folded: string) => boolean;
  /** "But", "except". */
  makesException: (folded: string) => boolean;
  /** Whether words give a reason for what was said before: "because the wheel came off". */
  givesReason: (folded: string) => boolean;
  /** "Instead", "rather". */
  replaces: (folded: string) => boolean;
  /** Whether a word ends something: "cancel", "stop". */
  endsIt: (word: string) => boolean;
  /** Whether words call off something that they name. */
  calledOff: (folded: string) => boolean;
  /** Whether words speak of what was spoken of last, and name it not: "cancel it", "where is that one". */
  pointsBack: (folded: string) => boolean;
  /** Whether words let something be, and name nothing: "never mind", "forget it". */
  letsBe: (folded: string) => boolean;
  /** "Instead", "rather" at the end, with what is before. */
  insteadAtEnd: RegExp;
  /** Whether a word names no option of several. */
  isLittle: (word: string) => boolean;
}

/** How figures are said, and places in a list. */
export interface Figures {
  /** Whether a word beside a figure says nothing more. */
  isAround: (word: string) => boolean;
  /** Whether a figure after this word names one of several: "the 15". */
  namesOne: (word: string) => boolean;
  /** Whether a word of an answer is of no value that it chooses. */
  namesNoValue: (word: string) => boolean;
  /** The place in a list of so many that words name and say nothing besides, from 0; `null` where they name none. */
  placeNamed: (folded: string, count: number) => number | null;
}

/** Answers that may be any words. */
export interface FreeWords {
  /** Words before the value, and after it. */
  leadIn: RegExp;
  tail: RegExp;
  /** Whether no name is made of a word. */
  isNoName: (word: string) => boolean;
  /** Whether a word describes, so that by itself it is no name. */
  describes: (word: string) => boolean;
  /** Whether words are known as a place, besides by a number. */
  isPlace: (words: string) => boolean;
}

/** Words around several values, and of what slots ask for. */
export interface ValueWords {
  /** Of the words between values: whether they set them against each other, make them one choice, or a sum. */
  areAlternatives: (between: string) => boolean;
  areOneChoice: (between: string) => boolean;
  areSum: (between: string) => boolean;
  /** A word, as the first group, by which there is one of the thing that follows the words: "a large". */
  one: RegExp;
  /** Up to the last word that joins two things. */
  joint: RegExp;
  /** "From four to seven": the last is what it is now. */
  hasGrown: (before: string, between: string) => boolean;
  /** Whether a slot's name or prompts ask for a day gone by, or may. */
  isOfThePast: (words: string) => boolean;
  /** Whether words take off what is named behind them: "no", "without the". */
  takesOff: (before: string) => boolean;
  /** Whether a message gives something in the place of what was given before. */
  putsInPlace: (text: string) => boolean;
  /** Whether a message gives something beside what was given before, and not in its place. */
  addsMore: (text: string) => boolean;
  /** Whether words in a slot's name or prompts ask for a day on which something has happened, and for no other. */
  hasHappened: (words: string) => boolean;
  /** Whether a slot's name speaks of a measure, of which there may be a part. */
  isMeasure: (words: string) => boolean;
  /** A unit of time after a figure, as the first group. */
  span: RegExp;
  /** Something further that is wanted of the business, after its count, as the first group: “one” _more order_. */
  furtherWish: RegExp;
  /** A thing that a figure after it names one of, as the first group. */
  namedByFigure: RegExp;
  /** Whether the words of a time tell the half of the day. */
  tellsHalfOfDay: (words: string) => boolean;
}

/** What is changed, and what it is changed to. */
export interface ChangeWords {
  /** Whether words ask for something to be otherwise: "can we move it". */
  asksToChange: (words: string) => boolean;
  /** Whether a slot's name says that it holds what was until now, and what is to be. */
  isFormerName: (name: string) => boolean;
  isComingName: (name: string) => boolean;
  /** How much the words on either side of a value tell that it is to be: below 0 it was. */
  tells: (before: string, after: string) => number;
  /** Whether words that could be a stretch of days or times, or a change from one to another, are a stretch. */
  isStretch: (words: string) => boolean;
  /** Whether the words between two values put the second in place of the first. */
  corrects: (between: string) => boolean;
}

/** The two ends of a stretch of days. */
export interface StretchWords {
  /** Whether a slot's name says that it holds the last day. */
  isNameOfLast: (name: string) => boolean;
  /** Whether a slot's name is a little word, which is told to nobody; and what the slot is called then. */
  isLittleName: (name: string) => boolean;
  called: Readonly<Record<'date' | 'time', string>>;
  /** One of several slots that a value could be for, as it is offered. */
  choice: (name: string, value: string) => string;
  isWeekday: (words: string) => boolean;
  /** The same, of one of several: "the Sunday". */
  isOneWeekday: (words: string) => boolean;
  readNights: (words: readonly Word[], at: number) => Count | null;
  /** Whether the words before a day tell which end it is. */
  leadsToFirst: (before: string) => boolean;
  leadsToLast: (before: string) => boolean;
  /** A day of the month that is all some words say, as the first group. */
  dayAlone: RegExp;
}

/** How customers name slots. */
export interface SlotNames {
  /** Whether a value of this kind is called so. */
  called: (kind: EntityKind, word: string) => boolean;
  /** Whether a word calls an amount, where nothing else is called so. */
  isAmount: (word: string) => boolean;
  /** Whether a word of a slot's name does not name it by itself. */
  namesNothing: (word: string) => boolean;
  plural: (word: string) => string;
}

/** Words by which wishes are told apart and put together. */
export interface WishWords {
  /** Whether what stands between two clauses leaves them one stretch. */
  joinsClauses: (between: string) => boolean;
  /** "The family one": the word that chooses, as the first group; global. */
  oneOf: RegExp;
  /** What people are counted as; global. */
  counted: RegExp;
  /** Whether a slot asks for what happened, in the customer's own words. */
  asksForStory: (words: string) => boolean;
  /** What joins a value to the words around it, at either end of them; global. */
  edge: RegExp;
}

/** How intents are named. */
export interface Naming {
  /** Words that begin the name of an intent and tell what a customer wants to do. */
  isVerb: (word: string) => boolean;
  verbs: readonly string[];
  /** The words of a name as something a customer wants to do: "change order" is "change an order". */
  asDoing: (words: readonly string[]) => string;
  /** Whether it is plain by its name that nobody chooses an intent from a list. */
  isSmallTalk: (name: string) => boolean;
}

/** Words around the code of something that is the customer's: "my order no. LM-20419". Words are folded. */
export interface References {
  /** Whether a word may stand before what the code is of. */
  leadsTo: (word: string) => boolean;
  /** Whether a word says that a code follows, and not of what. */
  isNumber: (word: string) => boolean;
  /** How a customer speaks of what is theirs. */
  owned: (noun: string) => string;
}

/** What makes a message as customers write it out of one as designers do. */
export interface NoiseWords {
  /** The rows of the keyboard. */
  keyboard: readonly string[];
  /** How words are written by ear, the likeliest slip first. */
  byEar: readonly (readonly [sound: RegExp, written: string])[];
  /** What a machine that listens takes one word for. */
  misheard: ReadonlyMap<string, string>;
  /** Whether a machine that listens may lose a word. */
  isDropped: (word: string) => boolean;
  fillers: readonly string[];
  /** Sentences that have nothing to do with any request, before it and after it. */
  before: readonly string[];
  after: readonly string[];
  /** Of other languages: what stands before a message and after it, and in place of words of its own. */
  foreign: { before: readonly string[]; after: readonly string[]; words: ReadonlyMap<string, string> };
}

/** What simulated customers say. In what they say a value stands as `{value}`, one that is no longer wanted as `{wrong}`. */
export interface CustomerWords {
  /** Of each kind that has no values of its own, several. */
  values: Readonly<Record<Exclude<EntityKind, 'list' | 'pattern'>, readonly string[]>>;
  answers: Readonly<Record<Manner, readonly string[]>>;
  yes: Readonly<Record<Manner, readonly string[]>>;
  no: readonly string[];
  /** That nothing is to be changed after all. */
  fine: readonly string[];
  /** Of what the bot read back wrongly. */
  corrections: readonly string[];
  /** Of one's mind. */
  changes: readonly string[];
  /** Within one message. */
  contradictions: readonly string[];
  /** That none of what was offered is meant. */
  none: readonly string[];
  /** That the bot has taken up something else. */
  otherwise: readonly string[];
}

/** How a customer puts things. */
export type Manner = 'plain' | 'terse' | 'chatty';

/** How the bot says stretches of days and times. An interval is two ISO days or times with a slash between them. */
export interface Periods {
  /** The part of the day that an interval is, by itself and with what leads in to it; `null` for any other. */
  sayPeriod: (interval: string) => string | null;
  sayInPeriod: (interval: string) => string | null;
  /** Words at the end of a text that lead in to a point of time, and do not fit a stretch. */
  leadIn: RegExp;
  fromTo: (from: string, to: string) => string;
}

/** What a language brings to conversations. */
export interface Talk {
  clauses: Clauses;
  figures: Figures;
  freeWords: FreeWords;
  values: ValueWords;
  changes: ChangeWords;
  stretches: StretchWords;
  slots: SlotNames;
  wishes: WishWords;
  naming: Naming;
  references: References;
  noise: NoiseWords;
  customers: CustomerWords;
  periods: Periods;
  /** What customers say for a value of each kind that has no values of its own. */
  examples: Readonly<Record<Exclude<EntityKind, 'list' | 'pattern'>, string>>;
}
