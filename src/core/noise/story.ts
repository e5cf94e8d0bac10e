import { oneOf, type Noise } from './noise.js';

/** What a sentence ends with. */
const ENDS = /[.!?…]['"’”)]*\s*$/u;

/** Sentences at either side, at full strength. */
const MOST = 2;

export const story: Noise = {
  name: 'story',
  means: 'The request stands within a story that has nothing to do with it.',
  apply(text, strength, random, { noise }) {
    const some = (from: readonly string[]): string[] => {
      const left = [...from];
      const count = Math.round(MOST * strength * (0.5 + random() / 2));
      return Array.from({ length: Math.min(count, left.length) }, () => {
        const sentence = oneOf(left, random);
        left.splice(left.indexOf(sentence), 1);
        return sentence;
      });
    };
    const request = ENDS.test(text) ? text : `${text}.`;
    return [...some(noise.before), request, ...some(noise.after)].join(' ');
  },
};
