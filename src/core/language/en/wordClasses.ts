/** English words that tell how a sentence is built rather than what it is about, by class. */
const CLASSES = {
  determiner:
    'a an the this that these those some any my your his her its our their another each every no both all half',
  preposition:
    'in on at by to from for of with into onto near behind beside under over around next inside outside through between below above against along about off up down out past towards',
  pronoun:
    'i you he she it we they me him us them who someone somebody anyone anybody everyone nobody something anything mine yours ours',
  conjunction: 'and or but because so if when while as than then though since until',
  auxiliary:
    'is are was were be been being am do does did have has had can could will would shall should may might must',
  hesitation: 'um uh er erm hmm like yeah well ok okay oh',
  courtesy: 'please pls plz thanks thank sorry hello hi hiya hey',
  question: 'what where which how why whose',
};

const CLASS_OF: ReadonlyMap<string, string> = new Map(
  Object.entries(CLASSES).flatMap(([name, words]) => words.split(' ').map((word) => [word, name] as const)),
);

/** The class of a word as it is read; `other` for names, things and doings. */
export function classOf(word: string): string {
  return CLASS_OF.get(word) ?? 'other';
}

const EDGES = /^(?:um|uh|er|erm|hmm|please|pls|plz)$/;

/** Whether a word is never the first or last of a value: it hesitates or asks. */
export function isEdge(word: string): boolean {
  return EDGES.test(word);
}

const REQUEST =
  /(?<!\p{L})(?:can|could|would|will|please|pls|plz|like\s+to|want|need|wondering|is\s+there|do\s+you|how|what|when|where|which|who)(?!\p{L})/iu;

/** Whether a sentence has words that ask for something. */
export const asks = (sentence: string): boolean => REQUEST.test(sentence);

/** "I am" names no half of the day. */
export const isVerbAfter = (before: string | undefined, word: string): boolean => word === 'am' && before === 'i';
