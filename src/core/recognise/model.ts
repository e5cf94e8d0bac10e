import type { IntentModel } from './intentModel.js';
import type { TaggerModel } from './tagger/tagger.js';
import type { Named } from '../text/named.js';

/** Everything that is learned of a bot. Plain data. */
export interface RecogniserModel extends IntentModel {
  /** Words that are never taken for misspellings, folded. */
  words: string[];
  /** What tells the slots of a form from the words around them, by form. */
  taggers: Named<TaggerModel>;
  /** Utterances that were learned from though not all of their values could be looked for. */
  unread: UnreadUtterance[];
}

/** An utterance in which some values could not be looked for, for a finder failed in it. */
export interface UnreadUtterance {
  intent: string;
  /** Without marks. */
  text: string;
  /** What was not looked for. */
  entities: string[];
}
