import type { ChangeWords } from '../talk.js';

const FORMER_NAME = /(?:^|[_-])(?:old|former|previous|current|present|original|existing|wrong|booked)(?:[_-]|$)/i;
const COMING_NAME = /(?:^|[_-])(?:new|next|wanted|changed|revised|right|correct)(?:[_-]|$)/i;

/** Words before a value, the last of which tells whether it is what was or what is to be. */
const BEFORE = new RegExp(
  `(?<=^|\\P{L})(?:(?<former>${[
    'from',
    '(?:change|swap|switch|exchange|replace)(?= +(?:(?:the|my|our|that|this) +)*$)',
    'instead of',
    'rather than',
    'in place of',
    'not',
    "(?:wo|ca|do|does)n['’]?t (?:be|do|make|come|manage|have|want|work|suit|need)",
    "(?:is|was|wo|ca|do|does)n['’]?t",
    'no longer(?: need| want| require)?|will not be|stop|cancel|skip',
    'was|were|had|have got',
    'booked|reserved|arranged|scheduled|sorted|planned|agreed|fixed|paid|ordered|spoken|put|got|gave|down|due|expecting',
    'supposed|meant',
    'said|says|saying|reads|shows',
    'currently|originally|already|before|first|wrong(?:ly)?',
    'away|busy|working',
    '(?:booking|appointment|tickets?|slot|reservation|stay|viewing|collection|pick-?up|delivery|visit) (?:is|was|are|were|for|on|at)',
    "it[’']?s(?: now| currently)? (?:for|on|at|down)",
    'my|our|your|that|this',
  ].join('|')})|(?<coming>${[
    'to(?= (?:(?:on|at|about|around|the|be) )*$)',
    'until|till',
    'make (?:it|that)',
    "should(?: have|[’']ve)? be(?:en)?|should of been|ought to be",
    'instead',
    'how about|what about',
    'can (?:we|you|i|it|they|he|she)|could (?:we|you|i|it|they|he|she)|may (?:we|i)',
    '(?:is|are|be)(?= (?:(?:on|at|about|around|the) )*$)',
    'now|but|only|actually|really',
    'want|wanted|like|prefer|rather|sooner|need|hoping|love',
    "please|let[’']?s|do|try|swap(?:ped)?(?: it| them)? for|change (?:it |them )?for|chance of|free|any|better|come",
    'i mean|i meant',
  ].join('|')}))(?=\\P{L}|$)`,
  'giu',
);
/** Between such words and the value, at most so many UTF-16 code units count. */
const NEAR = 28;

/** Words after a value. */
const THEN_FORMER =
  /^[\s,]*(?:['’]s\s|to\s*$|for\s*$|(?:booking|appointment|slot|tickets?|one)(?:\P{L}|$)|(?:that |which )?(?:we|i|you)(?:['’]d| had| have)?\s+(?:booked|arranged|agreed|said|planned)|(?:is |was )?(?:no good|no use|not possible|impossible|wrong|out)|(?:won|doesn|isn|can)['’]?t)/iu;
const THEN_COMING =
  /^[\s,]*(?:(?:instead|rather than|in place of|not)(?:\P{L}|$)|(?:would |will |is |['’]s )?(?:be )?(?:all right|alright|ok|okay|fine|better|possible|free|suits?|works?)(?:\P{L}|$)|please\b)/iu;

/** "Make it Friday, no, Saturday": the second stands for the first. */
const CORRECTS = /^[\s,.;–-]*(?:(?:no|or|sorry|wait|actually|i mean|rather)[\s,.;–-]*)+(?:on |at |the )*$/iu;

/** "The fourth through the seventh" is one stretch; "from the fourth to the seventh" is a change. */
const STRETCH = /through|thru|between|until|till|[-–]/iu;

const ASKS_TO_CHANGE =
  /(?<!\p{L})(?:chang|mov|swap|switch|shift|postpon|rebook|reschedul|bring|push|put|alter)\p{L}*/iu;

export const CHANGES: ChangeWords = {
  asksToChange: (words) => ASKS_TO_CHANGE.test(words),
  isFormerName: (name) => FORMER_NAME.test(name),
  isComingName: (name) => COMING_NAME.test(name),
  tells(before, after) {
    const last = [...before.matchAll(BEFORE)].at(-1);
    const near = last && before.length - last.index - last[0].length <= NEAR;
    const led = near ? (last.groups?.['former'] === undefined ? 1 : -1) : 0;
    const followed = THEN_COMING.test(after) ? 1 : THEN_FORMER.test(after) ? -1 : 0;
    return led + followed;
  },
  isStretch: (words) => STRETCH.test(words),
  corrects: (between) => CORRECTS.test(between),
};
