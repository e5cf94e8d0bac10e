import type { Clauses } from '../talk.js';
import { alters, asksQuestion, isFiller, requests, steeringHead, steeringOf, steeringTail } from './commands.js';
import { NAMING } from './naming.js';

/** Where one wish may end and another begin. */
const JOINT = new RegExp(
  String.raw`\s+(?:and|but|also|then|plus|oh and)(?:\s+(?:also|then|please|could you|can you))*\s+(?=(?:i|i['’]d|id|i['’]m|im|can|could|would|will|please|what|what['’]s|whats|when|where|where['’]s|wheres|who|how|which|why|is|are|do|does|did|has|let|we|need|want|${NAMING.verbs.join('|')})\b)`,
  'giu',
);

const LEADING = /^(?:and|but|so|then|also|oh|plus)\s+/iu;

const WOULD_LIKE = /(?:^| )(?:i|we) (?:want|need|would like|d like)(?: |$)|(?:^| )(?:id|wed) like(?: |$)/;

const ADDS = /^(?:and|also|plus|oh and)(?= )|(?: |^)(?:too|as well|also|in addition|on top)(?: |$)/;
const BEGINS_BY_ADDING = /^(?:and|also|plus|oh and)\s+/iu;

const OFFERS_VALUE =
  /^(?:(?:um|er|oh|well|so|and|ok) )*(?:do you (?:have|do|sell)|have you (?:got )?|is there|are there|is|are|what about|how about|would|does)(?= )/;

/** "It's 16" may be said of a house as well as of an amount; "make it 16" may not. */
const SAYS_WHAT_IS = /(?:^| )(?:its|it is|thats|that is|was|should be|number)(?: |$)/;

const DENIES = /(?:^| )(?:wrong|not|change|different|isnt|incorrect)(?: |$)/;
const BECAUSE = /^(?:(?:um|er|well|oh) )*(?:because|cause|cos|coz|cuz|bc)(?: |$)/;
const BUT = /^(?:but|except)(?: |$)/;

const ENDS_IT = /^(?:cancel|stop|end|drop|scrap|quit|abort|undo|bin|skip)$/;

/** "Is it possible", "it says that": a word for nothing. */
const IT_OF_NOTHING =
  /(?:^| )(?:(?:is|was|would|will|might) it (?:be )?(?:possible|ok|okay|all ?right|too late|fine|easy|true)|(?:it|its|that|this) (?:says|seems|turns|looks|is possible|possible))(?= |$)/gu;
const POINTS_BACK =
  /(?:^| )(?:it|its|them|(?:this|that) one|(?:this|that)(?: \S+)?(?: then| please| instead| now| for me| thanks)*$)(?: |$)/u;
const OF_ANOTHER = /(?:^| )(?:another|different|other)(?: |$)/u;

const LETS_BE =
  /^(?:(?:no|ok|okay|oh|well|actually|please) )*(?:never ?mind|nvm|forget (?:it|that|about it)|leave (?:it|that|this)|(?:it )?(?:doesnt|does not) matter|no matter)(?: then| thanks| thank you| please)*$/;

/** Words of a choice that name no option. */
const LITTLE = new Set(
  'the a an i id want to would like mean meant please its it is my about one option that this first ok yes no and of for'.split(
    ' ',
  ),
);

export const CLAUSES: Clauses = {
  steeringOf,
  steeringHead,
  steeringTail,
  isFiller,
  asksQuestion,
  requests,
  alters,
  joint: JOINT,
  leading: LEADING,
  wouldLike: (folded) => WOULD_LIKE.test(folded),
  adds: (folded) => ADDS.test(folded),
  beginsByAdding: (text) => BEGINS_BY_ADDING.test(text),
  offersValue: (folded) => OFFERS_VALUE.test(folded),
  saysWhatIs: (folded) => SAYS_WHAT_IS.test(folded),
  denies: (folded) => DENIES.test(folded),
  givesReason: (folded) => BECAUSE.test(folded),
  makesException: (folded) => BUT.test(folded),
  replaces: (folded) => / (?:instead|rather) /.test(` ${folded} `),
  endsIt: (word) => ENDS_IT.test(word),
  calledOff: (folded) => /^cancel \S+ \S+/.test(folded),
  pointsBack: (folded) => POINTS_BACK.test(folded.replace(IT_OF_NOTHING, ' ')) && !OF_ANOTHER.test(folded),
  letsBe: (folded) => LETS_BE.test(folded),
  insteadAtEnd: /[,\s]+(?:instead|rather)\s*[.!]*\s*$/iu,
  isLittle: (word) => LITTLE.has(word),
};
