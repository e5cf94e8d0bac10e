import type { Token, TokenisedText } from '../../text/tokens.js';
import { DICTIONARY } from './dictionary.js';
import { TENS, UNITS } from './numbers.js';

const STREET =
  /^(?:street|st|road|rd|lane|ln|avenue|ave|close|drive|dr|court|ct|way|place|pl|row|terrace|square|sq|crescent|cres|gardens|gdns|hill|walk|yard|mews|grove|green|park|parade|wharf|quay|rise|boulevard|blvd|circus|alley|passage|path|end|view|vale|bank|fields|meadow|highway|hwy|parkway|pike|trail|route|broadway|embankment|esplanade|promenade|cottages|villas|buildings|mount|ridge|loop|circle|reach)$/;
/** Streets whose kind is named first, as in French, Spanish, Italian and Portuguese. */
const STREET_FIRST =
  /^(?:rue|avenue|boulevard|place|allee|chemin|quai|calle|avenida|plaza|paseo|via|viale|piazza|corso|rua|travessa)$/;
/** Streets whose kind ends the word, as in German and Dutch. */
const STREET_WORD = /(?:strasse|straße|weg|platz|allee|gasse|ufer|straat|laan|plein|gracht)$/;
const BUILDING =
  /^(?:hall|centre|center|house|cottage|farm|school|church|hotel|building|buildings|barn|lodge|mill|works|studios?|college|hospital|library|museum|inn|arms|chapel|surgery|clinic|theatre|university|station|manor|villa|tower|towers|club)$/;
const UNIT = /^(?:flat|apartment|apt|unit|suite|room|floor|block|hall|studio|office|shop|plot)$/;
/** Postcodes: British, Irish, Canadian, Dutch, American with its state, and five or four figures. */
const POSTCODE =
  /^(?:[A-Z]{1,2}\d[A-Z\d]?\s{0,2}\d[A-Z]{2}|[A-Z]\d[\dW]\s{0,2}[A-Z\d]{4}|[A-Z]\d[A-Z]\s{0,2}\d[A-Z]\d|[A-Z]{2}\s{1,2}\d{5}(?:-\d{4})?|\d{4}\s{0,2}[A-Z]{2}|\d{5}(?:-\d{4})?|[A-Z]{2,3}\s{1,2}\d{4})(?![\p{L}\p{N}])/iu;
const NO_STREET_NAME =
  /^(?:of|them|those|these|to|for|at|in|on|by|from|please|and|or|with|is|it|the|a|an|want|need|i|we|you|my|order)$/;
const MOST_STREET_WORDS = 4;
const MOST_TOWN_WORDS = 3;

const isCapital = (token: Token | undefined): boolean => token !== undefined && /^\p{Lu}/u.test(token.text);
/** What stands between a word and the one before it, several spaces as one. */
const gap = (text: string, tokens: readonly Token[], at: number): string =>
  at <= 0 || at >= tokens.length ? '' : text.slice(tokens[at - 1]!.end, tokens[at]!.start).replace(/[^\S\n]+/g, ' ');
const near = (between: string): boolean => /^[ ,.'’-]{0,2}$/.test(between);

/** "12", "12a", "12-14", "forty one": index after the number of a house; the place itself where there is none. */
function houseNumber({ text, tokens }: TokenisedText, at: number): number {
  const word = tokens[at]?.norm ?? '';
  if (/^\d{1,5}$/.test(word)) {
    if (/[\p{L}\p{N}£$-]$/u.test(text.slice(0, tokens[at]!.start))) return at;
    let next = at + 1;
    if (tokens[next] && gap(text, tokens, next) === '' && /^[a-z]$/.test(tokens[next]!.norm)) next++;
    else if (gap(text, tokens, next) === '-' && /^\d{1,5}$/.test(tokens[next]?.norm ?? '')) next++;
    return next;
  }
  if (TENS.has(word)) return UNITS.has(tokens[at + 1]?.norm ?? '') ? at + 2 : at + 1;
  return UNITS.has(word) && word !== 'zero' && word !== 'nil' ? at + 1 : at;
}

/** Words for a street that are more often something else. */
const EVERYDAY =
  /^(?:green|close|drive|place|way|row|park|end|view|hill|walk|path|bank|square|rise|court|mount|circle|loop|reach|ridge|trail|route|parade|fields|passage|yard|st|pl|dr|ct|sq)$/;

const COMMON = 10;
const RARE = 99;

/** An everyday word is a street's where it has a capital, or where the sentence or the address goes on after it. */
function isStreet({ text, tokens }: TokenisedText, from: number, at: number): boolean {
  const [token, after] = [tokens[at]!, tokens[at + 1]];
  if (!EVERYDAY.test(token.mended) || isCapital(token)) return true;
  // "two large green": words that everybody uses name no street.
  if (tokens.slice(from, at).every(({ mended }) => (DICTIONARY.get(mended) ?? RARE) <= COMMON)) return false;
  if (!after) return true;
  if (/[,.\n]/.test(gap(text, tokens, at + 1)) || isCapital(after)) return true;
  return (
    (at + 2 === tokens.length && !DICTIONARY.has(after.norm)) ||
    /^(?:please|pls|thanks|and|by|on|for|in|at|if|is|it|was)$/.test(after.norm)
  );
}

/** One to four words and a word for a street. Index after it, or -1. */
function streetEnd({ text, tokens }: TokenisedText, at: number): number {
  for (let next = at; next < Math.min(tokens.length, at + MOST_STREET_WORDS + 1); next++) {
    const token = tokens[next]!;
    if (next > at && !/^[ '’.-]{0,2}$/.test(gap(text, tokens, next))) return -1;
    if (next > at && STREET.test(token.mended) && isStreet({ text, tokens }, at, next)) {
      // "Park Lane", "Mill Hill Road": the last word for a street counts.
      const more = STREET.test(tokens[next + 1]?.mended ?? '') && gap(text, tokens, next + 1) === ' ';
      return more ? next + 2 : next + 1;
    }
    if (next === at && STREET_WORD.test(token.norm)) return next + 1;
    if (NO_STREET_NAME.test(token.norm) && !(token.norm === 'the' && next === at)) return -1;
    if (/^\d/.test(token.norm)) return -1;
  }
  return -1;
}

/** "rue de la Paix", "Calle Mayor": index after the name, or -1. */
function streetFirstEnd({ text, tokens }: TokenisedText, at: number): number {
  if (!STREET_FIRST.test(tokens[at]?.norm ?? '')) return -1;
  let next = at + 1;
  while (
    next < tokens.length &&
    next - at <= MOST_STREET_WORDS &&
    gap(text, tokens, next).trim().length <= 1 &&
    !/,/.test(gap(text, tokens, next)) &&
    (isCapital(tokens[next]) || /^(?:de|la|le|les|des|du|del|da|do|dos|della|san|l|d)$/.test(tokens[next]!.norm))
  )
    next++;
  return next > at + 1 && isCapital(tokens[next - 1]) ? next : -1;
}

const beginsPostcode = (text: string, at: number): boolean =>
  /\d/.test(POSTCODE.exec(text.slice(at, at + 12))?.[0] ?? '');

function postcodeEnd(text: string, from: number): number {
  const lead = /^(?:,|[^\S\n]){1,6}/.exec(text.slice(from))?.[0].length ?? 0;
  const match = lead > 0 ? POSTCODE.exec(text.slice(from + lead)) : null;
  return match && /\d/.test(match[0]) ? from + lead + match[0].length : -1;
}

/** Takes in the town, the county and the postcode that follow a street. @param next index after the street */
function withTown(message: TokenisedText, next: number): number {
  const { text, tokens } = message;
  let end = tokens[next - 1]!.end;
  let at = next;
  for (let rounds = 0; rounds < 3; rounds++) {
    const code = postcodeEnd(text, end);
    if (code > 0) {
      end = code;
      while (at < tokens.length && tokens[at]!.start < end) at++;
    }
    const between = gap(text, tokens, at);
    if (at >= tokens.length || !/^(?: |, ?|\.? ?\n)$/.test(between)) break;
    let town = at;
    while (
      town < tokens.length &&
      town - at < MOST_TOWN_WORDS &&
      isCapital(tokens[town]) &&
      !beginsPostcode(text, tokens[town]!.start) &&
      !/^(?:I|I'm|Is|It|Can|Please|My|The|And|Thanks|Thank)$/.test(tokens[town]!.text) &&
      (town === at || /^[ -]$/.test(gap(text, tokens, town)))
    )
      town++;
    if (town === at) {
      // In small letters a town is one last word that is no other word, or any last word after a comma.
      const last = at === tokens.length - 1 || /^[.!?]/.test(text.slice(tokens[at]!.end).trimStart());
      const name =
        /^\p{L}{3,}$/u.test(tokens[at]!.text) && (!DICTIONARY.has(tokens[at]!.norm) || between.startsWith(','));
      if (!last || !name || /^(?:please|thanks|pls|cheers)$/.test(tokens[at]!.norm)) break;
      town = at + 1;
    }
    at = town;
    end = tokens[town - 1]!.end;
  }
  return end;
}

/** "Flat 2,", "Hall B," before a street or a building: where the address begins. */
function withUnit({ text, tokens }: TokenisedText, at: number): number {
  const unit = tokens[at - 2];
  if (
    unit &&
    UNIT.test(unit.norm) &&
    near(gap(text, tokens, at)) &&
    /^(?:\d{1,4}|[a-z]|one|two|three|four|five|six|seven|eight|nine|ten)$/.test(tokens[at - 1]!.norm) &&
    /^[ ,]+$/.test(gap(text, tokens, at))
  )
    return at - 2;
  const withLetter = tokens[at - 3];
  if (
    withLetter &&
    UNIT.test(withLetter.norm) &&
    /^\d{1,4}$/.test(tokens[at - 2]!.norm) &&
    gap(text, tokens, at - 1) === '' &&
    /^[ ,]+$/.test(gap(text, tokens, at))
  )
    return at - 3;
  return at;
}

/** "Marram Exhibition Centre", "Rose Cottage" with capitals: index after it, or -1. */
function buildingEnd({ text, tokens }: TokenisedText, at: number): number {
  let next = at;
  while (
    next < tokens.length &&
    next - at <= MOST_STREET_WORDS &&
    isCapital(tokens[next]) &&
    (next === at || /^[ '’-]{1,2}$/.test(gap(text, tokens, next)))
  ) {
    if (next > at && BUILDING.test(tokens[next]!.mended)) return next + 1;
    next++;
  }
  return -1;
}

/**
 * An address that begins at a word: a house and street or a named building, with the town and postcode that follow.
 * `null` where none does.
 */
export function addressAt(message: TokenisedText, at: number): { start: number; end: number } | null {
  const { text, tokens } = message;
  const numbered = houseNumber(message, at);
  if (numbered > at && near(gap(text, tokens, numbered))) {
    const street = Math.max(streetEnd(message, numbered), streetFirstEnd(message, numbered));
    if (street > 0) return { start: tokens[withUnit(message, at)]!.start, end: withTown(message, street) };
  }
  const first =
    streetFirstEnd(message, at) > 0
      ? streetFirstEnd(message, at)
      : STREET_WORD.test(tokens[at]!.norm) && isCapital(tokens[at])
        ? at + 1
        : -1;
  if (first > 0 && /^\d{1,4}$/.test(tokens[first]?.norm ?? ''))
    return { start: tokens[at]!.start, end: withTown(message, first + 1) };
  const building = buildingEnd(message, at);
  if (building > 0 && /^, ?$/.test(gap(text, tokens, building))) {
    const from = withUnit(message, at);
    const numberAfter = houseNumber(message, building);
    const street = streetEnd(message, numberAfter);
    const next = street > 0 ? street : building;
    const end = withTown(message, next);
    if (street > 0 || end > tokens[building - 1]!.end) return { start: tokens[from]!.start, end };
  }
  return null;
}
