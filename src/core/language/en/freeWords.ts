import type { FreeWords } from '../talk.js';

const LEAD_IN =
  /^(?:(?:um|uh|er|oh|ok|okay|yes|yeah|so|well|hi|please|sure|right|that's|it's just)[,.]? )*(?:(?:it'?s called|it is called|we'?re called|we are called|it'?s|it is|that'?s|that would be|this is|my name is|the name is|name is|name'?s|i'?m|i am|we'?re|we are|called|deliver (?:it |them )?to|send (?:it |them )?to|to|put (?:it |that |me )?(?:down )?(?:under|as)|put|make it|the address is|my address is|address is|i'?d like it to say|it should say|under|in the name of|for)(?: |: ?))?/iu;
const TAIL = /[\s,.]*(?:please|thanks|thank you|cheers)?[\s.!]*$/iu;

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

/** Words that some place is known by, besides its number. */
const PLACE =
  /(?:^|[^\p{L}])(?:street|st|road|rd|lane|avenue|ave|close|drive|court|way|place|terrace|square|crescent|gardens|hill|walk|yard|mews|grove|green|park|row|house|cottage|farm|mill|hall|church|school|hotel|barn|lodge|works|studio|flat|floor|bridge|corner|opposite|behind|beside|near|next to|estate|unit|block|end|village|town|station|office|shop|pub|inn|arms)(?:[^\p{L}]|$)/iu;

export const FREE_WORDS: FreeWords = {
  leadIn: LEAD_IN,
  tail: TAIL,
  isNoName: (word) => NO_NAME.has(word),
  describes: (word) => DESCRIBES.test(word),
  isPlace: (words) => PLACE.test(words),
};
