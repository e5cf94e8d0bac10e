import { tidy, type Token, type TokenisedText } from '../../text/tokens.js';
import { DICTIONARY } from './dictionary.js';

const TITLE =
  /^(?:mr|mrs|miss|ms|mx|dr|doctor|prof|professor|sir|lady|lord|dame|rev|reverend|father|sister|sergeant|captain)$/;
/** Words after which somebody's name is said, the last of them nearest to it. */
const CUES: readonly (readonly string[])[] = [
  ['my', 'name', 'is'],
  ['name', 'is'],
  ['the', 'name'],
  ['name', 'of'],
  ['names'],
  ['this', 'is'],
  ['called'],
  ['speak', 'to'],
  ['speak', 'with'],
  ['talk', 'to'],
  ['talk', 'with'],
  ['ask', 'for'],
  ['through', 'to'],
  ['chat', 'with'],
  ['word', 'with'],
  ['contact'],
  ['attention', 'of'],
  ['attn'],
  ['fao'],
  ['get', 'hold', 'of'],
  ['is'],
  ['get'],
  ['ring'],
  ['reach'],
  ['regards'],
  ['from'],
  ['with'],
  ['for'],
  ['im'],
  ['i', 'am'],
  ['to'],
  ['under'],
  ...'husband wife son daughter mum mother dad father brother sister friend partner boss colleague neighbour'
    .split(' ')
    .map((relation) => [relation]),
];
/** After these a name must be written with a capital: they stand before much else. */
const WEAK =
  /^(?:husband|wife|son|daughter|mum|mother|dad|father|brother|sister|friend|partner|boss|colleague|neighbour|is|get|ring|reach|from|with|for|im|am|to|called|contact|under)$/;
const NO_NAME =
  /^(?:monday|tuesday|wednesday|thursday|friday|saturday|sunday|january|february|march|april|may|june|july|august|september|october|november|december|i|im|id|ill|ive|the|a|an|my|your|please|ok|okay|christmas|easter|uk|gb|usa)$/;
const MOST_WORDS = 3;

const isCapital = ({ text }: Token): boolean => /^\p{Lu}[\p{Ll}'’-]/u.test(text) || /^\p{Lu}$/u.test(text);
const isUnknown = ({ norm }: Token): boolean => /^[a-z]{3,}$/.test(norm) && !DICTIONARY.has(norm);
/** Between the words of a name stands a space, or a hyphen; a dot only after a title or an initial. */
const parted = (text: string, before: Token, token: Token): boolean => {
  const between = tidy(text.slice(before.end, token.start));
  return (
    !/^[ .'’-]{0,2}$/.test(between) || (between.includes('.') && before.norm.length > 1 && !TITLE.test(before.norm))
  );
};

/** Index after the last word of a name that begins here; the place itself where none does. */
function nameEnd({ text, tokens }: TokenisedText, at: number, { mayBeSmall }: { mayBeSmall: boolean }): number {
  let next = at;
  while (next < tokens.length && next - at < MOST_WORDS) {
    const token = tokens[next]!;
    if (next > at && parted(text, tokens[next - 1]!, token)) break;
    const fits = !NO_NAME.test(token.norm) && (isCapital(token) || (mayBeSmall && isUnknown(token)));
    if (!fits) break;
    next++;
  }
  return next;
}

function cueBefore(tokens: readonly Token[], at: number): 'strong' | 'weak' | null {
  const cue = CUES.find((words) => words.every((word, index) => tokens[at - words.length + index]?.norm === word));
  if (!cue) return null;
  return cue.length === 1 && WEAK.test(cue[0]!) ? 'weak' : 'strong';
}

/**
 * A person who is named at a word, by a title ("Mrs Brock") or by what is said before a name ("my name is", "can I speak
 * to"). Index after the last word of the name; -1 where nobody is named.
 */
export function personAt(text: TokenisedText, at: number): number {
  const { tokens } = text;
  const title = TITLE.test(tokens[at]!.norm);
  const cue = cueBefore(tokens, at);
  if (!title && cue === null) return -1;
  const from = title ? at + 1 : at;
  const end = nameEnd(text, from, { mayBeSmall: title || cue === 'strong' });
  return end > from ? end : -1;
}
