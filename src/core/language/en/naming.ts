import type { Naming } from '../talk.js';

/** Words that begin the name of an intent and tell what a customer wants to do. */
const VERBS: ReadonlySet<string> = new Set(
  `add alter amend apply arrange ask book buy call cancel change check choose claim collect compare complain confirm
  contact correct delay delete deliver discuss end exchange extend find fix get give hire join leave make modify move
  open order park pay pick place postpone quote rebook register remove renew rent reorder repair replace report request
  reschedule reserve return schedule sell send set sign speak start stop subscribe swap talk tell track transfer
  try unsubscribe update upgrade use view visit withdraw`.split(/\s+/),
);
/** Second words that need no article: "sign up", "speak to person", "find us". */
const NO_ARTICLE =
  /^(?:up|to|for|with|about|us|me|it|out|off|in|on|my|our|your|the|an?|some|more|help|information|advice|support|stock|new)$/;
/** Nouns that are not counted. */
const UNCOUNTED =
  /(?:ing|ness|ware|wear|ry)$|^(?:work|money|food|time|cash|post|mail|waste|bulky|garden|advice|service|insurance|tea|coffee)$/;

const withArticle = (noun: string): string => (/^[aeiou]/.test(noun) ? `an ${noun}` : `a ${noun}`);

/** Intents by whose name it is plain that nobody chooses them from a list. */
const SMALL_TALK =
  /^(?:thanks?|thank(?:ing|_?you)?|goodbyes?|bye|farewell|greet(?:ing|ings|s)?|hello|hi|hey|welcome|small_?talk|chit_?chat|chat|polite(?:ness)?|pleasantr(?:y|ies)|affirm|deny|yes|no|ok|okay|compliments?|praise|out_?of_?scope|fallback|none|other)(?:[_-].*)?$/i;

export const NAMING: Naming = {
  isVerb: (word) => VERBS.has(word),
  verbs: [...VERBS],
  asDoing([verb, ...rest]) {
    const last = rest.at(-1) ?? '';
    const takesArticle =
      rest.length > 0 && VERBS.has(verb!) && !NO_ARTICLE.test(rest[0]!) && !/s$/.test(last) && !UNCOUNTED.test(last);
    if (takesArticle) return `${verb} ${withArticle(rest.join(' '))}`;
    if (verb === 'speak' && rest[0] === 'to' && rest.length === 2) return `speak to ${withArticle(rest[1]!)}`;
    return [verb, ...rest].join(' ');
  },
  isSmallTalk: (name) => SMALL_TALK.test(name),
};
