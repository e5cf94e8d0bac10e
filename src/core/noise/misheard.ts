import { changeWords, type Noise } from './noise.js';

const MOST_MISHEARD = 0.7;
const MOST_DROPPED = 0.3;

export const misheard: Noise = {
  name: 'misheard',
  means: 'What a machine writes down that listens: words of like sound, little words lost, nothing but words.',
  apply: (text, strength, random, { noise }) =>
    changeWords(text.toLowerCase(), (word) => {
      const heard = noise.misheard.get(word);
      if (heard !== undefined && random() < MOST_MISHEARD * strength) return heard;
      return noise.isDropped(word) && random() < MOST_DROPPED * strength ? '' : null;
    })
      .replace(/[.,;:!?]+(?=\s|$)/gu, '')
      .replace(/\s+/gu, ' ')
      .trim() || text,
};
