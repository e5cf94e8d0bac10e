import type { Check } from './note.js';

/** Fewer utterances than this teach an intent poorly. */
const FEW = 10;

export const fewUtterances: Check = {
  name: 'few utterances',
  intent: (_, { utterances }) =>
    utterances.length >= FEW
      ? []
      : [
          {
            text: `${utterances.length} utterances; ${FEW} to 15 of different build teach an intent well.`,
            weight: 'weak',
          },
        ],
};
