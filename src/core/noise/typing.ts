import { changeWords, oneOf, type Noise, type Random } from './noise.js';

/** Of the letters, at full strength. */
const MOST_SLIPS = 0.12;
/** Shorter words are seldom misspelt, and then are other words. */
const SHORTEST = 4;

function neighbour(letter: string, rows: readonly string[], random: Random): string {
  const row = rows.find((keys) => keys.includes(letter));
  if (!row) return letter;
  const at = row.indexOf(letter);
  return row[Math.min(row.length - 1, Math.max(0, at + (random() < 0.5 ? -1 : 1)))]!;
}

function slip(word: string, at: number, rows: readonly string[], random: Random): string {
  const [before, letter, after] = [word.slice(0, at), word[at]!, word.slice(at + 1)];
  return oneOf(
    [
      () => before + neighbour(letter.toLowerCase(), rows, random) + after,
      () => before + after,
      () => before + letter + letter + after,
      () => before + (after[0] ?? '') + letter + after.slice(1),
    ],
    random,
  )();
}

export const typing: Noise = {
  name: 'typing',
  means: 'Letters are left out, doubled, swapped or taken from the next key.',
  apply: (text, strength, random, { noise }) =>
    changeWords(text, (word) => {
      if (word.length < SHORTEST) return null;
      let changed = word;
      for (let at = word.length - 1; at > 0; at--)
        if (random() < MOST_SLIPS * strength)
          changed = slip(changed, Math.min(at, changed.length - 1), noise.keyboard, random);
      return changed;
    }),
};
