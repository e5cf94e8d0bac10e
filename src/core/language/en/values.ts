import type { ValueWords } from '../talk.js';

/** Words that set two values against each other. */
const ALTERNATIVE = /(?:^|[^\p{L}])(?:or|either)(?:[^\p{L}]|$)|\/|\?/iu;
/** Words that join the parts of a sum. */
const SUM = /(?:^|[^\p{L}])(?:and|plus|with)(?:[^\p{L}]|$)|[&+,]/iu;

/** Words before a figure that is no part of a sum: "two soups, collect at 12". */
const NO_SUM = /(?:^|[^\p{L}])(?:at|by|around|about|from|for|on|before|after|until|till|to|no|number)\s+$/iu;

/** Words in a slot's name or prompts by which it asks for a day gone by, or may. */
const OF_THE_PAST =
  /(?:^|[^a-z])(?:was|were|did|missed|miss|happen(?:ed)?|bought|ordered|placed|born|birth|dob|purchased?|delivered|arrived|last(?! day| night)|since|old|previous|original|booked|made|paid|received|collected|started|began|lost|noticed|incident|invoice|issued|should have|has been|have you)(?:[^a-z]|$)/i;

/** Words by which it asks for a day on which something has happened; "which day was it" may be one to come. */
const HAS_HAPPENED =
  /(?:^|[^a-z])(?:missed|happen(?:ed)?|lost|stolen|noticed|incident|accident|bought|should have|did (?!you have)\w+|went|broke|broken|damaged)(?:[^a-z]|$)/i;

/** "And the gears too"; "too small" adds nothing. */
const ADDS_MORE =
  /(?:^|\P{L})(?:also|add|throw\s+in|chuck\s+in|as\s+well|in\s+addition|on\s+top\s+of\s+that)(?=\P{L}|$)|(?:^|\P{L})too[\s.!,]*(?:please)?[\s.!]*$/iu;
const IN_ITS_PLACE = /(?:^|\P{L})(?:make|instead|rather|change|swap|switch|only|just|not)(?=\P{L}|$)/iu;

const TAKES_OFF =
  /(?:^|\P{L})(?:no|not|without|drop|remove|lose|scrap|skip|minus|forget|cancel|leave\s+(?:out|off)|take\s+(?:out|off)|don['’]?t\s+(?:want|need))(?:\s+(?:the|any|those|that|my|more))?\s*$/iu;

/** Measures, of which there may be a part. */
const MEASURE =
  /weight|height|length|width|depth|size|hour|price|cost|temperature|distance|age|litre|liter|kilo|metre|meter|inch|area|volume|rate|percent|score/i;

const SPAN = /^\s+(?:more\s+)?(day|night|week|month|year|hour|minute|fortnight)s?(?=\P{L}|$)/iu;

/** What a figure after it names one of: "pitch 9", "room 12". */
const FURTHER_WISH =
  /^\s*(?:more|other|further)\s+(thing|question|request|order|job|problem|issue|favou?r|enquiry|query)s?(?![\p{L}\p{N}])/iu;
const NAMED_BY_FIGURE =
  /(?:^|\P{L})(pitch|plot|room|table|flat|apartment|unit|bay|berth|gate|stand|stall|seat|row|cabin|chalet|lodge|pod|cottage|building|block|floor|level|ward|zone|platform|terminal|lane|locker|desk|door|house|track|court|pen|mooring|line|page|step|junction|exit)\s+(?:no\.?\s+|number\s+)?$/iu;

const EITHER = /^[\s,]*(?:or|\/)(?:[\s,]+\p{L}{1,6}){0,2}\s*$/iu;

const ONE = /(?:^|\P{L})(an?|another)(?:\s+[\p{L}-]+){0,2}\s*$/iu;

const JOINT = /^.*(?:,|\band\b|&|\+)/isu;
const FROM = /(?:^|\s)from\s+$/iu;
const TO = /^\s+to\s+$/iu;
const HALF_OF_DAY = /(?:^|\P{L})[ap]\.?m|morning|noon/iu;

export const VALUES: ValueWords = {
  areAlternatives: (between) => ALTERNATIVE.test(between),
  areOneChoice: (between) => EITHER.test(between),
  areSum: (between) => SUM.test(between) && !NO_SUM.test(between),
  one: ONE,
  joint: JOINT,
  hasGrown: (before, between) => FROM.test(before) && TO.test(between),
  isOfThePast: (words) => OF_THE_PAST.test(words),
  putsInPlace: (text) => IN_ITS_PLACE.test(text),
  takesOff: (before) => TAKES_OFF.test(before),
  addsMore: (text) => ADDS_MORE.test(text) && !IN_ITS_PLACE.test(text),
  hasHappened: (words) => HAS_HAPPENED.test(words),
  isMeasure: (words) => MEASURE.test(words),
  span: SPAN,
  furtherWish: FURTHER_WISH,
  namedByFigure: NAMED_BY_FIGURE,
  tellsHalfOfDay: (words) => HALF_OF_DAY.test(words),
};
