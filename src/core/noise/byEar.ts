import { changeWords, type Noise } from './noise.js';

/** Of the words that can be, at full strength. */
const MOST_WORDS = 0.8;

export const byEar: Noise = {
  name: 'by ear',
  means: 'Words are spelt as they sound.',
  apply: (text, strength, random, { noise }) =>
    changeWords(text, (word) => {
      const rule = noise.byEar.find(([sound]) => word.search(sound) >= 0);
      return rule && random() < MOST_WORDS * strength ? word.replace(...rule) : null;
    }),
};
