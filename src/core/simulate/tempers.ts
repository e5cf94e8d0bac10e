import type { Manner } from '../language/talk.js';

/** How a simulated customer behaves. Shares are of the chances that there are, 0..1. */
export interface Temper {
  name: string;
  /** What it does, as a sentence for people. */
  means: string;
  manner: Manner;
  /** Of its messages, how many stand within talk that has nothing to do with them. */
  talk: number;
  /** Of its answers, how many name something else first and take it back at once. */
  contradicts: number;
  /** Of its forms, in how many it wants something else once all is read back, or before. */
  changes: number;
  /** Of its turns, in how many it says nothing. */
  silent: number;
}

const CALM = { talk: 0, contradicts: 0, changes: 0, silent: 0 };

/** The tempers that there are. */
export const TEMPERS: readonly Temper[] = [
  { ...CALM, name: 'cooperative', means: 'Answers what is asked.', manner: 'plain' },
  { ...CALM, name: 'terse', means: 'Says the value and nothing else.', manner: 'terse' },
  { ...CALM, name: 'chatty', means: 'Tells of this and that around the answer.', manner: 'chatty', talk: 0.5 },
  {
    ...CALM,
    name: 'changing',
    means: 'Wants something else than before, after an answer or at the read-back.',
    manner: 'plain',
    changes: 1,
  },
  {
    ...CALM,
    name: 'contradicting',
    means: 'Names one thing and then another in one message, and says no to a read-back that is right.',
    manner: 'plain',
    contradicts: 0.7,
  },
  { ...CALM, name: 'silent', means: 'Says nothing every third time.', manner: 'terse', silent: 0.35 },
];
