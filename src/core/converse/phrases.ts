/** What customers say to steer a conversation, in English. Patterns are matched on folded text. */

const start = (words: string): RegExp =>
  new RegExp(`^(?:(?:oh|ok|okay|um|uh|er|well|hmm|ah|right|actually|sorry|please|so|and|but) )*(?:${words})(?![a-z])`);
const whole = (words: string): RegExp =>
  new RegExp(
    `^(?:(?:oh|ok|okay|um|uh|er|well|sorry|please|just|can you|could you|can i|could i|i want to|id like to|lets) )*(?:${words})(?: (?:please|thanks|thank you|now|then|again|for now))*$`,
  );
const anywhere = (words: string): RegExp => new RegExp(`(?<![a-z])(?:${words})(?![a-z])`);

const YES = start(
  'yes|yep|yeah|yea|yup|aye|sure|correct|right|thats? (?:right|correct|it|fine|all|perfect|great|good)|that is (?:right|correct|it|fine|all)|go ahead|go for it|please do|ok|okay|perfect|great|lovely|confirm|confirmed|fine|sounds (?:good|right|great)|looks (?:good|right|great)|place it|do it|absolutely|definitely|of course|all good|all correct|spot on|exactly|it is|they are|i do|happy with that',
);
const NO = start(
  'no|nope|nah|not (?:quite|right|really|yet|at all|correct)|wrong|thats? (?:wrong|not right|not it|incorrect)|that is (?:wrong|not right|incorrect)|incorrect|its wrong|dont|do not|wait|hang on|hold on|it isnt|theyre not',
);
const NEVER_MIND = anywhere(
  'never ?mind|forget (?:it|about it|this|that|the whole thing)|leave (?:it|that)(?: there| at that| for now)?$|leave it|(?:ive|i have) changed my mind|cancel (?:this|that|it|the whole thing|everything|all of it)|call it off|(?:dont|do not) want (?:it|this|that|to go on|to carry on|to continue|any of (?:it|this|that))(?: any ?more)?|give up|stop (?:this|it|the order)|scrap (?:it|that|this|the whole thing)|drop it',
);
const CANCEL = whole('cancel|stop|quit|exit|abort|end|cancel(?: my| the)? order');
const PERSON = anywhere(
  '(?:speak|talk|chat|put me through|transfer me|connect me) (?:to|with) (?:an? |some|the |your |one of your )*(?:(?:real |actual |live |proper )?(?:person|human|human being|body|someone|somebody|one|agent|advis[eo]r|operator|manager|member of staff|colleague|people|team|representative))|(?:real|actual|live) (?:person|human)|(?:^human$)|(?:^person$)|(?:^agent$)|(?:^operator$)|(?:want|need|get me|give me) (?:an? )?(?:person|human|human being|agent|operator|real person)',
);
const HELP = whole('help|help me|what can you do|what can i say|what are my options');
const REPEAT = whole(
  'repeat|repeat that|say that|say it|say that again|come again|pardon|what did you say|what was that|i beg your pardon',
);
const START_OVER = whole(
  'start over|start again|begin again|restart|from the beginning|start from the beginning|start afresh',
);
const QUESTION = /^(?:what|when|where|who|why|how|which|whats|wheres|do|does|did|are|is|have|has)(?![a-z])/;
const REQUEST = /^(?:can|could|would|will|may|please)(?![a-z])/;

/** Small letters, no accents or apostrophes, punctuation to spaces. */
export function foldPhrase(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\p{M}'’]/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}?]+/gu, ' ')
    .trim();
}

export const saysYes = (folded: string): boolean => YES.test(folded) && !anywhere('but|except|wrong').test(folded);
export const saysNo = (folded: string): boolean => NO.test(folded);
export const wantsOut = (folded: string): boolean => CANCEL.test(folded) || NEVER_MIND.test(folded);
export const wantsPerson = (folded: string): boolean => PERSON.test(folded);
export const wantsHelp = (folded: string): boolean => HELP.test(folded);
export const wantsRepeat = (folded: string): boolean => REPEAT.test(folded);
export const wantsStartOver = (folded: string): boolean => START_OVER.test(folded);
/** A question about something, not a request put politely ("can you deliver them?"). */
export const asksQuestion = (folded: string): boolean =>
  QUESTION.test(folded) || (folded.endsWith('?') && !REQUEST.test(folded));
