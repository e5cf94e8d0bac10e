import type { Steering } from '../../converse/steering.js';

/**
 * What customers say to steer a conversation, in English. Each list holds whole clauses, as patterns on folded words:
 * a clause that says anything besides is no steering ("leave it by the gate").
 */

const any = (...phrases: string[]): string => `(?:${phrases.join('|')})`;

const IT = any(
  'it',
  'this',
  'that',
  'them',
  'everything',
  'anything',
  'the whole thing',
  'all of (?:it|this|that)',
  'all that',
);
const SOMEBODY = `(?:(?:an?|the|some|any|another|your|my|real|actual|live|proper|human|one of (?:your|the)|a member of(?: your)?|somebody|someone) )*${any('person', 'human(?: being)?', 'body', 'one', 'someone(?: real)?', 'somebody(?: real)?', 'anyone', 'anybody', 'agent', 'advis[eo]r', 'operator', 'representative', 'rep', 'manager', 'supervisor', 'colleagues?', 'people', 'team', 'staff', 'humans?', 'assistant', 'receptionist', 'customer services?', 'a person', 'the (?:office|desk|shop)')}`;

/** Words that people say while they think, and for manners' sake. */
const HESITATIONS = ['oh', 'um+', 'uh', 'er+m?', 'well', 'hm+', 'ah', 'actually', 'sorry', 'please', 'so'];

/** Words that lead in to a command and say nothing of their own. */
export const LEADS: readonly string[] = [
  ...HESITATIONS,
  'ok',
  'okay',
  'right',
  'and',
  'but',
  'just',
  'then',
  'now',
  'look',
  'listen',
  'hey',
  'hi',
  'hello',
  'you know what',
  'on second thoughts?',
  'to be honest',
  'tbh',
  'in fact',
  'i think',
  'i guess',
  'i said',
  'i mean',
  'id (?:just )?(?:like|love|rather|prefer)(?: to)?',
  'i would (?:just )?(?:like|love|rather|prefer)(?: to)?',
  'i (?:just |really )?(?:want|need|have) to',
  'i wanna',
  'can i',
  'could i',
  'may i',
  'can you',
  'could you',
  'can we',
  'could we',
  'cant i',
  'cant we',
  'cant you',
  'why cant i',
  'let me',
  'lets',
  'would you',
  'will you',
  'do you think i could',
  'is it possible to',
  'i was hoping to',
  'how do i',
  'how can i',
  'maybe',
  'perhaps',
  'honestly',
  'seriously',
];
/** Words that follow a command and say nothing of their own. */
export const TAILS: readonly string[] = [
  'please',
  'pls',
  'thanks',
  'thank you',
  'now',
  'then',
  'again',
  'for now',
  'instead',
  'if you can',
  'if possible',
  'ok',
  'okay',
  'mate',
  'love',
  'cheers',
  'actually',
  'after all',
  'right now',
  'will you',
  'would you',
  'though',
  'really',
  'all together',
  'altogether',
  'completely',
  'entirely',
  'if you dont mind',
  'sorry',
  'any ?more',
  'first',
  'for me',
  'today',
  'here',
];

const PHRASES: readonly (readonly [Steering, string])[] = [
  [
    'leave',
    any(
      `cancel(?: ${IT}| (?:my|the|this) (?:order|booking|request|form|call|chat))?`,
      `(?:stop|end|quit|exit|abort|undo)(?: (?:this|that|it|everything|the (?:order|booking|form)))?`,
      'never ?mind(?: (?:it|that|about it|about that))?',
      'nvm',
      `forget(?: about)? (?:${IT}|i asked|the (?:order|booking)|my (?:order|booking))`,
      'forget about it',
      'leave (?:it|that|this)(?: (?:there|at that|for now|be|alone|out|as it is|for today))?',
      `(?:drop|scrap|skip|ditch|bin) (?:${IT}|the (?:order|booking))`,
      'call it off',
      '(?:(?:ive|i have|we have|weve|have|i|we) )?changed (?:my mind|our minds?)',
      `(?:i |we )?(?:dont|do not|no longer) (?:want|need|fancy) (?:${IT}|to (?:go on|carry on|continue|do (?:it|this|that)|order(?: anything)?|book(?: anything)?|bother))`,
      '(?:i )?give up',
      '(?:im |i am |were )?not interested',
      'dont bother',
      '(?:lets )?not now',
      '(?:maybe |perhaps )?(?:another time|later)',
      'ill (?:do it|do this|come back|try again|call back|ring back|think about it|leave it)(?: later| another time)?',
      '(?:some|an)other time',
    ),
  ],
  [
    'keep',
    any(
      `keep (?:${IT}|the (?:order|booking|appointment|reservation)|my (?:order|booking|appointment|reservation))(?: as (?:it is|is|planned))?`,
      'dont',
      'do not',
      'please dont',
      `(?:i |we )?(?:dont|do not) (?:want to |wish to |need to )?(?:cancel|book|order|send|place|do|submit|stop|change|buy|confirm|go ahead|proceed)(?: (?:with )?(?:${IT}|my .+|the .+|yet|an?y .+))?`,
      'not (?:that|any of (?:it|them))',
      'stop',
    ),
  ],
  [
    'person',
    any(
      `(?:speak|talk|chat) (?:to|with) ${SOMEBODY}(?: (?:about (?:it|this|that)|there))?`,
      `(?:put|get|transfer|connect|pass|switch|send) me (?:straight |over |on |back )?(?:through |over |on )?(?:to|with) ${SOMEBODY}`,
      `put me through`,
      `have an? (?:quick |little )?(?:word|chat|talk) (?:to|with) ${SOMEBODY}`,
      `(?:i |we )?(?:just |really )?(?:want|need|prefer|get me|give me|would like|id like|d like) ${SOMEBODY}`,
      `(?:get|give|find) me ${SOMEBODY}`,
      `(?:is|isnt) there ${SOMEBODY}(?: (?:there|available|about|around))?(?: (?:that |who )?i (?:can|could) (?:speak|talk) (?:to|with))?`,
      `(?:(?:can|could|would|will) )?${SOMEBODY} (?:to )?(?:call|ring|phone) me(?: back)?`,
      `(?:have|get) ${SOMEBODY} (?:to )?(?:call|ring|phone) me(?: back)?`,
      '(?:real |live |actual |proper )?(?:person|human|human being|agent|operator|representative|advis[eo]r)',
      `a (?:real |live |actual |proper )?(?:person|human|human being|agent|operator|representative|advis[eo]r)`,
    ),
  ],
  [
    'startOver',
    any(
      '(?:start|begin) (?:over|again|afresh|anew)(?: (?:from|at) (?:the )?(?:scratch|beginning|start))?',
      '(?:start|begin) (?:it |this )?(?:all )?(?:over|again)(?: again)?',
      '(?:start |begin |go |take it |go back )?(?:from|to) (?:scratch|the (?:beginning|start|top))',
      'restart',
      'reset',
    ),
  ],
  [
    'repeat',
    any(
      'repeat(?: (?:that|it|the question|yourself|what you said))?',
      'say (?:that|it)(?: (?:again|one more time|once more))?',
      'come again',
      'pardon(?: me)?',
      'what (?:did you (?:say|ask)|was that|was the question)(?: again)?',
      'i beg your pardon',
      'sorry what',
      'what',
      'eh',
      'huh',
      '(?:i )?(?:didnt|did not) (?:quite )?(?:catch|get|hear|understand) (?:that|it|you)',
      'once more',
    ),
  ],
  [
    'help',
    any(
      'help(?: me)?(?: out)?',
      'what (?:else )?can (?:you|i|we) (?:do|say|ask|help(?: me)? with)(?: (?:for me|here|you))?',
      'what (?:are|were) my options',
      'how (?:does|do) (?:this|it|you) work',
      'what (?:do you do|are you for|is this for|can be done here)',
      'how can you help(?: me)?',
    ),
  ],
  [
    'nothing',
    any(
      'nothing(?: (?:else|more|thanks|at all|to change|really))*',
      'no changes?',
      'none at all',
      '(?:thats|that is|that will be|thatll be) (?:all|everything|it)',
      'that was (?:all|everything|it)',
      'im (?:done|all set|good|fine)',
      'all done',
      'leave it as it (?:is|was)',
      '(?:its|it is) fine as it is',
    ),
  ],
  [
    'neither',
    any(
      'neither(?: (?:of (?:them|those|these)|one))?',
      'none(?: of (?:them|those|these|the above|that))?',
      'not (?:any|either) of (?:them|those|these)',
      'something else',
      '(?:its|it is) something else',
      'no neither',
    ),
  ],
  [
    'both',
    any(
      'both(?: (?:of (?:them|those|these)|things|please))?',
      'i (?:want|need) both',
      'the two(?: of them)?',
      'all of (?:them|those)',
    ),
  ],
  [
    'unknown',
    any(
      `(?:i )?(?:dont|do not|cant|cannot) (?:know|remember|recall|find|have|tell|say)(?: (?:${IT}|yet|one|the|any|an?|my|number|reference|code|to hand|with me|order|name|date|exactly))*`,
      `(?:i )?(?:havent|have not) (?:got|decided|a clue|any idea|chosen|an?y)(?: (?:it|that|one|the|a|an|any|my|yet|number|reference|code|to hand|with me|order|on me|name|date))*`,
      '(?:i have |ive )?no (?:idea|clue)(?: yet)?',
      '(?:im |i am )?not sure(?: yet)?',
      'dunno',
      'no (?:order |booking |job |reference |invoice )?(?:number|reference|code|idea)',
      '(?:there is|theres|there isnt|there was|ive got|i have|i got|i was given) (?:no|not|not an?y?|an?y?) (?:order |booking |job |reference |invoice )?(?:number|reference|code|name|one)',
      'lost it',
      'ive lost it',
      'i lost (?:it|the (?:number|code|paper|receipt))',
    ),
  ],
  [
    'indifferent',
    any(
      '(?:i )?(?:dont|do not) (?:really )?(?:mind|care)(?: (?:which|when|what|at all|really|either way|about the \\S+|(?:what |which )?(?:the )?(?:time|day|date|colour|size|kind|sort)))*',
      '(?:it )?(?:doesnt|does not) (?:really )?matter(?: (?:to me|which|when))?',
      'any(?:thing| ?time| ?day| ?one| one| of them| colour| size| kind| sort| way)?(?: (?:is|are|will|would|be|do|does|works?|suits?|fine|good|ok|okay|me|for|really|you (?:like|have|want)))*',
      'what ?ever(?: (?:you|is|like|think|have|suits|works|best|easiest|for|me|youve|got))*',
      'whichever(?: (?:you|is|like|think|suits|works|best|easiest|for|me))*',
      'when ?ever(?: (?:you|is|like|can|suits|works|best|easiest|for|me))*',
      'either(?: (?:is|one|way|will|would|fine|do|ok|okay|of them|works|suits))*',
      'no preference',
      '(?:im |i am )?(?:easy|flexible|not (?:fussed|bothered|fussy))',
      '(?:its )?(?:up to you|your choice|all the same(?: to me)?)',
      'you (?:choose|decide|pick|tell me)',
      '(?:as )?soon as (?:possible|you can)',
      'as soon as possible',
      'asap',
    ),
  ],
  [
    'refusal',
    any(
      '(?:id |i would )?(?:rather|prefer) not(?: (?:to )?(?:say|tell(?: you)?|give (?:it|that)|answer))?(?: that)?',
      'prefer not',
      'not (?:say|tell(?: you)?|give (?:it|that)|answer)',
      '(?:thats )?none of your business',
      'no comment',
      '(?:i )?(?:wont|will not|am not going to|im not going to|refuse to|dont want to|do not want to) (?:say|tell|give|answer)(?: (?:you|that|it|my|the|name|number|email|address|phone|out))*',
      'why (?:do|did|would|should|are) (?:you|i|we) (?:have to |need |want |ask|asking|give |tell |know|really |like )+.*',
      'why',
      'why (?:that|is that|not)',
      'what (?:for|do you (?:need|want) (?:it|that|this|my .+) for)',
      'what is (?:it|that|this) for',
      'do (?:you|i) (?:really )?(?:need|have) (?:to|it|that|my|the).*',
      'is (?:that|it|this) (?:really )?necessary',
    ),
  ],
  [
    'annoyed',
    any(
      '(?:this|that|it|you|youre|you are|this bot|its)(?: (?:is|are|really|so|just|all|a|an|such|completely|absolutely|utterly|being|bloody|total))* (?:ridiculous|rubbish|stupid|useless|silly|joke|annoying|hopeless|pathetic|absurd|nonsense|terrible|awful|idiot|dumb|thick|waste of (?:my )?time|getting (?:nowhere|silly)|frustrating)',
      '(?:i |ive |i have |as i |like i |just )*(?:already |just |have |only )*(?:told|said|gave|given|explained|answered|mentioned|typed|wrote)(?: (?:you|it|that|this|so|them|all that))*(?: (?:already|before|once|twice|above|earlier|just now))*',
      'for (?:gods?|goodness|heavens?|petes?) sakes?',
      'come on',
      '(?:are|r) (?:you|u) (?:an? )?(?:(?:real |actual |chat ?)?(?:robot|bot|human|person|real|machine|computer|stupid|serious|joking|ai))(?: or (?:an? )?(?:robot|bot|human|person|real|machine|computer|ai))?',
      'am i (?:talking|speaking|chatting) to (?:an? )?(?:robot|bot|human|person|machine|computer|real person)',
      'is this (?:an? )?(?:robot|bot|human|real person|machine|computer|ai)',
    ),
  ],
  [
    'asBefore',
    any(
      '(?:the )?same (?:\\S+ )?(?:\\S+ )?(?:as (?:before|last time|usual|ever|the last (?:one|time)|my last (?:one|order))|again)',
      '(?:to |at |use |with |and )?the same (?:\\S+ )?(?:address|place|name|e ?mail|number|phone|day|date|time)(?: (?:as (?:before|last time|usual)|again|too|as well))?',
      'as (?:before|last time|usual)',
      '(?:you|you already) (?:have|know|got) (?:it|that|my \\S+)(?: already)?',
      '(?:the )?same(?: (?:one|as that))?',
    ),
  ],
  [
    'yes',
    any(
      '(?:yes|yep|yeah|yea|yeh|yup|ya|aye|y|si|ja)(?: (?:yes|yep|yeah|sure|of course|certainly|absolutely|definitely|correct|indeed|please|go ahead|do|i do|it is|they are|thats right|that is right|exactly|perfect|great|ok|okay|fine|right|all right|lovely|good|thanks|thank you))*',
      '(?:thats|that is|its|it is|theyre|all|everything is|everythings|that all|it all|all of (?:that|it) is) (?:now |all |quite |absolutely |exactly |just )?(?:right|correct|it|fine|all|perfect|great|good|ok|okay|better|lovely|all right|alright|spot on|ideal|brilliant|fantastic|the one|me|how i want (?:it|them)|what i want(?:ed)?)(?: now)?',
      '(?:thats|that is) (?:both|all|two|three|everything)(?: of (?:them|those))?',
      'that (?:works|suits|would be (?:great|good|lovely|fine|perfect))(?: (?:for )?me)?',
      '(?:sounds|looks) (?:good|right|great|fine|ok|okay|correct|perfect|lovely|all right|about right)(?: (?:to|for) me)?',
      'go (?:ahead|for it|on)',
      'please do',
      '(?:do|place|book|order|send|confirm|submit|cancel|make|change) (?:it|that|so|them)',
      'do so',
      'sure(?: thing)?',
      'correct',
      'confirm(?:ed)?',
      'certainly',
      'absolutely',
      'definitely',
      'of course',
      'exactly',
      'indeed',
      'agreed',
      'spot on',
      'why not',
      'happy (?:with (?:that|it)|to)',
      'im happy(?: with (?:that|it))?',
      '(?:it|they) (?:is|are)',
      'i (?:do|am|would)',
      'all (?:good|correct|right|fine|ok|okay)',
      'no problem',
      'good to go',
      'lets (?:do (?:it|that)|go)',
      'works for me',
    ),
  ],
  [
    'no',
    any(
      '(?:no|nope|nah|naw|na|n)(?: (?:no|nope|not|thanks|thank you|please|really|its not|it isnt|not really|thats not right|thats wrong|it isnt right|sorry))*',
      'not (?:quite|right|really|yet|at all|correct|exactly|quite right|that one|that)',
      '(?:thats|that is|its|it is|this is) (?:not (?:right|correct|it|what i (?:said|want|meant|asked for|ordered)|quite right)|wrong|incorrect|all wrong)',
      '(?:that|it) (?:isnt|is not) (?:right|correct|it|what i (?:said|want|meant|asked for))',
      'wrong',
      'incorrect',
      'it isnt',
      'theyre not',
      'no way',
      'negative',
    ),
  ],
  [
    'wait',
    any(
      '(?:no |oh )?(?:wait|hang on|hold on)(?: (?:an?|one|just a))?(?: (?:mo|moment|minute|min|sec|second|bit))?(?: please)?',
      '(?:just )?(?:a|one|1) (?:moment|minute|min|second|sec)',
      'bear with me',
      'give me an? (?:moment|minute|second|sec)',
      'let me (?:think|see|check|look)',
    ),
  ],
  [
    'ok',
    any(
      '(?:ok|okay|okey|okie|oki|k|kk|right|fine|great|lovely|good|perfect|alright|all right|cool|brilliant|super|grand|excellent|fantastic|wonderful|marvellous|nice|sweet|very well|fair enough|got it|i see|understood)(?: (?:ok|okay|then|thanks|thank you|great|lovely|good|perfect|fine|right|so|well|now))*',
    ),
  ],
  [
    'thanks',
    any(
      '(?:many )?(?:thanks?|thank you|cheers|ta|thx)(?: (?:a (?:lot|bunch|million)|so|very|much|ever so|again|for (?:that|this|your help|letting me know|everything|all your help)|you|thanks|both|all|for))*',
      'much appreciated',
      '(?:thats|that is) (?:very |so |really )?(?:kind|helpful|good of you)(?: of you)?',
      'youre (?:a star|very kind|so kind|the best)',
    ),
  ],
  [
    'greeting',
    any(
      '(?:hi|hello|hey|hiya|hullo|howdy|yo|greetings|morning|evening|afternoon|good (?:morning|afternoon|evening|day))(?: (?:there|all|everyone|again|team|to you|folks))*',
    ),
  ],
  [
    'bye',
    any(
      '(?:good)?bye(?: (?:bye|now|for now|then))*',
      'see (?:you|ya)(?: (?:later|soon|then|there))?',
      'have a (?:nice|good|great|lovely) (?:day|one|evening|weekend|week)',
      'take care',
      'ttfn',
    ),
  ],
  [
    'filler',
    any(
      ...HESITATIONS,
      'anyway',
      'look',
      'listen',
      'you know',
      'lol',
      '(?:i )?(?:just )?(?:hope|hoping|was hoping|wonder if|was wondering if) (?:that )?you can help(?: me)?(?: (?:out|with something))?',
      '(?:i have|ive got|i had|just|got) an? (?:quick |little |small )?(?:question|query)',
      '(?:i )?(?:need|want|could use) (?:some |your |a bit of )?help(?: with something)?',
      'in fact',
      'i mean',
      'i think',
      'let me see',
      'you know what',
      'by the way',
      'btw',
      'oh dear',
      'oh no',
      'oops',
      'my mistake',
      'my bad',
      'instead',
    ),
  ],
];

/** What each way of steering is said by, alone. */
const CORES: readonly (readonly [Steering, RegExp])[] = PHRASES.map(([steering, core]) => [
  steering,
  new RegExp(`^${core}$`),
]);

/** Little words that say nothing beside a value. */
const LITTLE = ['in', 'the', 'at', 'on', 'by', 'for', 'a', 'an', 'it', 'is'];

const whole = (...phrases: string[]): RegExp => new RegExp(`^${any(...phrases)}$`);
const IS_LEAD = whole(...LEADS);
const IS_TAIL = whole(...TAILS);
const IS_FILLER = whole(...LEADS, ...TAILS, ...LITTLE);

/** A clause of more words speaks of the matter, whatever it begins and ends with. */
const MOST_STEERING_WORDS = 24;
/** The words of the longest lead-in or tail. */
const LONGEST_LITTLE = 5;

/**
 * How many words at one end are such phrases, one after another: each number for which that is so.
 * @param fits whether the words between two numbers, counted from that end, are one phrase
 */
function runs(words: number, fits: (from: number, to: number) => boolean): number[] {
  const reached = [0];
  for (const from of reached) {
    for (let to = from + 1; to <= Math.min(words, from + LONGEST_LITTLE); to++)
      if (!reached.includes(to) && fits(from, to)) reached.push(to);
  }
  return reached;
}

const runsFrom = (words: readonly string[], phrase: RegExp): number[] =>
  runs(words.length, (from, to) => phrase.test(words.slice(from, to).join(' ')));

const runsBack = (words: readonly string[], phrase: RegExp): number[] =>
  runs(words.length, (from, to) => phrase.test(words.slice(words.length - to, words.length - from).join(' ')));

/**
 * What a whole clause does to the conversation; `null` where it says something else. First as it stands, since some
 * phrases would make something else with their own words taken for a lead-in or a tail.
 * @param folded of `foldPhrase`
 */
export function steeringOf(folded: string): Steering | null {
  const words = folded.replace(/\?$/, '').split(' ', MOST_STEERING_WORDS + 1);
  if (words.length > MOST_STEERING_WORDS) return null;
  const find = (texts: readonly string[]) =>
    CORES.find(([, core]) => texts.some((text) => core.test(text)))?.[0] ?? null;
  const alone = find([words.join(' ')]);
  if (alone !== null) return alone;
  const tails = runsBack(words, IS_TAIL);
  return find(
    runsFrom(words, IS_LEAD).flatMap((lead) =>
      tails
        .filter((tail) => lead + tail > 0 && lead + tail < words.length)
        .map((tail) => words.slice(lead, words.length - tail).join(' ')),
    ),
  );
}

/** Words that a clause of its own begins with, so that a steering word before it stands apart without a comma. */
const OPENS =
  /^(?:(?:and|but|so|then|also|actually|just|please|maybe|perhaps|oh|er|um|well|now) )*(?:i|id|im|ive|ill|we|wed|weve|can|could|would|will|may|let|lets|what|whats|when|whens|where|wheres|who|how|hows|which|why|is|isnt|are|do|does|did|has|have|tell|give|make|change|book|order|cancel|it|its|thats|use|add|put|send|you|there|not|instead|only|on|at|for|to|the|my|\d+|one|two|three|four|five|six|seven|eight|nine|ten|make|just)(?= |$)/;

/** Steering words that begin a clause and stand apart from what follows. What follows must begin something of its own. */
const HEADS: readonly (readonly [Steering, RegExp])[] = [
  [
    'filler',
    /^(?:actually|oh|well|um+|uh|er+m?|so|sorry|hm+|ah)(?= (?:yes|yep|yeah|no|nope|keep|leave|cancel|dont|wait|forget|never|ok|thanks)(?: |$))/,
  ],
  [
    'yes',
    /^(?:yes|yep|yeah|yea|yup|aye)(?: (?:please|thanks|sure|thats (?:right|correct|fine|it|all|perfect|great)|that is (?:right|correct|fine)|of course|ok|okay|go ahead))?(?= )/,
  ],
  ['wait', /^(?:no |oh |actually )?(?:wait|hang on|hold on)(?: a (?:moment|minute|sec|second))?(?= )/],
  ['no', /^(?:no|nope|nah)(?: (?:thanks|thank you|no|sorry|thats (?:wrong|not right)))*(?= )/],
  [
    'leave',
    /^(?:(?:actually|oh|ok|okay|no|well|sorry|please) )*(?:forget (?:it|that|about it|about that)|never ?mind(?: that)?|scrap (?:it|that)|cancel (?:that|it)|leave (?:it|that)|(?:ive |i have )?changed my mind)(?= (?:and |but |so |then |please |just |actually |instead |now )*(?:i|id|im|ill|we|can|could|would|please|let|lets|what|when|where|how|is|are|do|give|make|book|order)(?: |$))/,
  ],
  [
    'ok',
    /^(?:ok|okay|right|alright|all right|fine|great|lovely|perfect|good|cool|brilliant)(?: (?:then|so|thanks|thank you|well))*(?= )/,
  ],
  ['thanks', /^(?:thanks|thank you|cheers)(?: (?:so much|very much|a lot|for that|for letting me know))?(?= )/],
  ['greeting', /^(?:hi|hello|hey|hiya|good (?:morning|afternoon|evening))(?: there)?(?= )/],
];
/** After "no" these make a thing of it: "no idea", "no one", "no longer". */
const NO_OF =
  /^(?:one|idea|problem|matter|need|preference|number|reference|order|longer|more|doubt|worries|rush|hurry|bother|other|real|clue|later|earlier|less|fewer|particular|specific|code|name|email|phone|sign|news|show|answer|reply|water|power|heating|flowers?|signal|stock|use|good|luck|chance|such|body)(?= |$)/;

/** A steering phrase at the beginning of a clause that goes on to something else: how many words it has. */
export function steeringHead(folded: string): { steering: Steering; words: number } | null {
  for (const [steering, pattern] of HEADS) {
    const head = pattern.exec(folded)?.[0];
    if (head === undefined) continue;
    const rest = folded.slice(head.length).trim();
    if (steering === 'no' && NO_OF.test(rest)) continue;
    if (!OPENS.test(rest) && (steering === 'ok' || steering === 'thanks' || steering === 'leave')) continue;
    return { steering, words: head.split(' ').length };
  }
  return null;
}

/** A "yes", a word of thanks or a goodbye that ends a clause: "thats better now yes". */
export function steeringTail(folded: string): { steering: Steering; words: number } | null {
  const yes = / (?:yes|yep|yeah)(?: please| thanks)?$/.exec(folded);
  if (yes) return { steering: 'yes', words: yes[0].trim().split(' ').length };
  const bye = / (?:good)?bye(?: (?:bye|now|for now|then))*$/.exec(folded);
  if (bye) return { steering: 'bye', words: bye[0].trim().split(' ').length };
  const thanks = / (?:thanks|thank you|cheers)(?: (?:so much|very much|a lot))?$/.exec(folded);
  return thanks ? { steering: 'thanks', words: thanks[0].trim().split(' ').length } : null;
}

const LEADING_WORDS =
  /^(?:(?:and|but|so|then|also|oh|ok|okay|well|um|er|sorry|wait|please|hi|hello|right|actually|now|by the way|btw) )*/;
const ASKS =
  /^(?:what|whats|when|whens|where|wheres|who|whos|why|how|hows|which|whose|(?:do|does|did|dont|doesnt|is|isnt|are|arent|am|was|were|has|have|had|will|would|should|shall) (?:you|i|we|they|he|she|it|that|this|there|the|your|my|our|any|anyone|anybody|somebody|someone|all|these|those)|(?:can|could|will|would) you (?:please )?(?:tell|let|explain|say|advise|remind)|do you know|any idea|tell me (?:what|when|where|who|why|how|which|if|whether|about)|(?:i )?(?:was |am |im |just )*wonder(?:ing)? (?:if|whether|what|when|where|how)|(?:i )?(?:want|need|would like|d like|id like) to know)(?= |\?|$)/;
/** A request put as a question, and an offer of a value: "can you deliver them?", "is Friday all right?" */
const POLITE = /^(?:can|could|would|will|may|shall|please|might)(?= )/;
const OFFERS =
  /^(?:how about|what about|(?:is|are|would|will|does|do) (?!you |there |it (?:open|free)|they |we |i )(?:.+ )?(?:ok|okay|fine|work|possible|suit|do|all right|alright|good|free|available|be)(?: .*)?\??$)/;

/** A question about something, not a request put politely ("can you deliver them?") nor the offer of a value. */
export function asksQuestion(folded: string): boolean {
  const words = folded.replace(LEADING_WORDS, '');
  if (OFFERS.test(words)) return false;
  return ASKS.test(words) || (folded.endsWith('?') && !POLITE.test(words));
}

const REQUESTS =
  /^(?:please )?(?:(?:i|we) (?:just |really |also |still )?(?:want|need|wish|would like|have to|wanted|should like)|(?:id|wed) (?:also |just |really )?(?:like|love|rather|prefer)|(?:im|i am|were|we are) (?:looking|after|trying|calling|ringing|writing|hoping)|(?:can|could|may|might) (?:i|we|you)|would you|will you|let me|(?:tell|give|get|send|show|book|put|sign|find) (?:me|us)|lets)(?= |$)/;

/** Words that ask for something to be done: "I want to", "can you". */
export const requests = (folded: string): boolean => REQUESTS.test(folded.replace(LEADING_WORDS, ''));

/** Words that take back or alter something said before. */
export const alters = (folded: string): boolean =>
  /(?:^| )(?:no|not|actually|make (?:it|that|them)|change|instead|rather|sorry|i meant?|should (?:be|say|have been)|correction|oops|wrong|better|only|just|scratch|swap|switch|but|wait|different|other|another|now)(?= |$)/.test(
    folded,
  );

/** Whether some words say nothing of their own. */
export function isFiller(folded: string): boolean {
  const words = folded.split(' ', MOST_STEERING_WORDS + 1);
  return words.length <= MOST_STEERING_WORDS && runsFrom(words, IS_FILLER).includes(words.length);
}
