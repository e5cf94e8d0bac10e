import type { PersonSaid } from '../contract/try.js';
import type { Encode } from '../recognise/answer.js';
import type { Recogniser } from '../recognise/open.js';
import type { ConversationState, Step } from './state.js';
import { step } from './step.js';
import { textsOfTurn } from './turn.js';
import { runWalkthrough, type Walkthrough, type WalkthroughResult } from './walkthrough.js';

/** Takes a conversation one turn further. @param now local ISO time that relative dates are reckoned from */
export async function takeTurn(
  recogniser: Recogniser,
  state: ConversationState,
  said: PersonSaid,
  { now, encode }: { now: string; encode: Encode },
): Promise<Step> {
  if (said.type !== 'text') return step(recogniser, state, said);
  return step(recogniser, state, { ...said, now, vectors: await encode(textsOfTurn(recogniser, said.text)) });
}

/** What customers say in walkthroughs. */
export const wordsOf = (walkthroughs: readonly Walkthrough[]): string[] =>
  walkthroughs.flatMap(({ turns }) => turns.flatMap((turn) => turn.user ?? []));

/** Runs walkthroughs; their texts are encoded together. @param now where one names no time of its own */
export async function runWalkthroughs(
  recogniser: Recogniser,
  walkthroughs: readonly Walkthrough[],
  { now, encode }: { now: string; encode: Encode },
): Promise<WalkthroughResult[]> {
  const vectors = await encode(wordsOf(walkthroughs).flatMap((text) => textsOfTurn(recogniser, text)));
  return walkthroughs.map((walkthrough) => runWalkthrough(recogniser, walkthrough, vectors, now));
}
