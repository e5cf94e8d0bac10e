import { changeWords, oneOf, type Noise } from './noise.js';

const MOST_WORDS = 0.8;

export const languages: Noise = {
  name: 'other languages',
  means: 'Some words, greetings and thanks are of another language.',
  apply(text, strength, random, { noise }) {
    const { before, after, words } = noise.foreign;
    const mixed = changeWords(text, (word) => {
      const other = words.get(word.toLowerCase());
      return other !== undefined && random() < MOST_WORDS * strength ? other : null;
    });
    const first = random() < strength / 2 ? `${oneOf(before, random)} ` : '';
    const last = random() < strength / 2 ? ` ${oneOf(after, random)}` : '';
    return first + mixed + last;
  },
};
