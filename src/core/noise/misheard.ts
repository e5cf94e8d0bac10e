import { changeWords, type Noise } from './noise.js';

const MOST_MISHEARD = 0.7;
const MOST_DROPPED = 0.3;

export const misheard: Noise = {
  name: 'misheard',
  means: 'What a machine writes down that listens: words of like sound, little words lost, nothing but words.',
  apply(text, strength, random, { noise }) {
    // Whatever else it hears, it writes neither signs nor capitals.
    if (strength === 0) return text;
    const heard = changeWords(text.toLowerCase(), (word) => {
      const other = noise.misheard.get(word);
      if (other !== undefined && random() < MOST_MISHEARD * strength) return other;
      return noise.isDropped(word) && random() < MOST_DROPPED * strength ? '' : null;
    });
    const plain = heard
      .replace(/[.,;:!?]+(?=\s|$)/gu, '')
      .replace(/\s+/gu, ' ')
      .trim();
    return plain || text;
  },
};
