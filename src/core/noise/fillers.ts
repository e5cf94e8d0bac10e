import { oneOf, type Noise } from './noise.js';

/** Of the gaps between words, at full strength. */
const MOST_GAPS = 0.35;

export const fillers: Noise = {
  name: 'fillers',
  means: 'Words of hesitation stand between the others, and some words come twice.',
  apply: (text, strength, random, { noise }) =>
    text
      .split(' ')
      .flatMap((word) => {
        const chance = random();
        if (chance < (MOST_GAPS * strength) / 4) return [word, word];
        return chance < MOST_GAPS * strength ? [oneOf(noise.fillers, random), word] : [word];
      })
      .join(' '),
};
