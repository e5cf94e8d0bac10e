import type { EntityKind } from '../bot/document.js';
import { DICTIONARY } from '../language/en/dictionary.js';
import { tokenise } from '../text/tokens.js';
import { bareNumber } from './fits.js';

/** Kinds whose value may be any words, so that the whole answer is taken when the slot was asked for. */
export const TAKES_ANY_WORDS: readonly (EntityKind | undefined)[] = ['free', 'person', 'address', 'country'];

const LEAD_IN =
  /^(?:(?:um|uh|er|oh|ok|okay|yes|yeah|so|well|hi|please|sure|right|that's|it's just)[,.]? )*(?:(?:it'?s called|it is called|we'?re called|we are called|it'?s|it is|that'?s|that would be|this is|my name is|the name is|name is|name'?s|i'?m|i am|we'?re|we are|called|deliver (?:it |them )?to|send (?:it |them )?to|to|put (?:it |that |me )?(?:down )?(?:under|as)|put|make it|the address is|my address is|address is|i'?d like it to say|it should say|under|in the name of|for)(?: |: ?))?/iu;
const TAIL = /[\s,.]*(?:please|thanks|thank you|cheers)?[\s.!]*$/iu;
const LONGEST_FREE_VALUE = 500;

/** The words of an answer that are its value. */
export function freeValue(text: string): string {
  const trimmed = text.trim();
  const value = trimmed.slice(LEAD_IN.exec(trimmed)?.[0].length ?? 0).replace(TAIL, '');
  return (value === '' ? trimmed : value).slice(0, LONGEST_FREE_VALUE);
}

/** Words of which no name is made. */
const NO_NAME = new Set(
  `i you we they he she me us him her them myself yourself it this that these those what when where who why how which is are was were be been am do does did done have has
  had can could will would shall should may might must not no yes yeah ok okay please thanks thank sorry a an the some any my your our
  their his her its if then than so but or because about with without from for to of in on at by as just only really very too also
  now later soon never ever again here there tomorrow today yesterday need want like make made change changed cancel order book tell
  say said ask know think mean mind sure wrong right good bad fine dont cant wont isnt id im ive ill youre thats whats one two three
  four five six seven eight nine ten zero none nothing anything something someone somebody anyone robot bot human person ridiculous
  hello hi hey bye morning afternoon evening actually instead another other half past quarter oclock`.split(/\s+/),
);
/** Endings of words that describe, which one word in small letters alone makes no name. */
const DESCRIBES = /(?:ous|ful|less|ing|ly|able|ible|ish|ive)$/;
const MOST_NAME_WORDS = 5;

function mayBeName(value: string): boolean {
  const { tokens } = tokenise(value);
  if (tokens.length === 0 || tokens.length > MOST_NAME_WORDS) return false;
  if (tokens.some(({ norm }) => !/^\p{L}+$/u.test(norm))) return false;
  const capital = /^\p{Lu}/u.test(tokens[0]!.text);
  if (tokens.some(({ norm, text }) => NO_NAME.has(norm) && !(capital && /^\p{Lu}/u.test(text) && norm.length > 3)))
    return false;
  return capital || tokens.length > 1 || !DESCRIBES.test(tokens[0]!.norm);
}

/** Words that some place is known by, besides its number. */
const PLACE =
  /(?:^|[^\p{L}])(?:street|st|road|rd|lane|avenue|ave|close|drive|court|way|place|terrace|square|crescent|gardens|hill|walk|yard|mews|grove|green|park|row|house|cottage|farm|mill|hall|church|school|hotel|barn|lodge|works|studio|flat|floor|bridge|corner|opposite|behind|beside|near|next to|estate|unit|block|end|village|town|station|office|shop|pub|inn|arms)(?:[^\p{L}]|$)/iu;

function mayBeAddress(value: string): boolean {
  const { tokens } = tokenise(value);
  const words = tokens.filter(({ norm }) => /\p{L}/u.test(norm));
  if (words.length === 0) return false;
  return /\d/.test(value)
    ? true
    : PLACE.test(value) || (words.length > 1 && words.some(({ text }) => /^\p{Lu}\p{L}/u.test(text)));
}

function mayBeCountry(value: string): boolean {
  const { tokens } = tokenise(value);
  return (
    tokens.length <= 3 &&
    tokens.every(({ norm }) => /^\p{L}+$/u.test(norm) && !NO_NAME.has(norm)) &&
    tokens.some(({ norm, text }) => !DICTIONARY.has(norm) || /^\p{Lu}/u.test(text))
  );
}

/** Whether some words can be a value of a kind that takes any words. */
export function mayBe(kind: EntityKind | undefined, value: string): boolean {
  if (!/\p{L}/u.test(value)) return false;
  if (kind === 'person') return mayBeName(value);
  if (kind === 'country') return mayBeCountry(value);
  if (kind === 'address') return mayBeAddress(value);
  return kind === 'free' && bareNumber(value) === null;
}
