import type { Noise } from './noise.js';

const SIGNS = /(?<!\d)[.,;:!?]+|[.,;:!?]+(?!\d)|["“”()]/gu;

export const unpunctuated: Noise = {
  name: 'no punctuation',
  means: 'All in small letters, without signs between the words.',
  apply: (text, strength, random) =>
    random() < strength ? text.toLowerCase().replace(SIGNS, '').replace(/\s+/gu, ' ').trim() : text,
};
